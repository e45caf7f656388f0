/** What the search can find, besides commands and the text on pages. */
import {
  PART_PURPOSES,
  type PartType,
  type Library,
  type PageSummary,
  type Role,
  type SavedPart,
} from '@gullyline/core'
import { HELP_TOPICS } from '../help/topics.ts'
import type { ToBegin } from '../site/begin.ts'
import { screensFor } from '../site/screens.ts'
import { SETTINGS } from '../site/settings-list.ts'

export interface SearchItem {
  /** Unique among all that can be found. */
  readonly id: string
  readonly title: string
  readonly about?: string
  /** Of a page, as visitors have it. */
  readonly address?: string
  readonly synonyms?: readonly string[]
  readonly keys?: string
  /** The screen it leads to. */
  readonly path?: string
  /** What begins there. */
  readonly toBegin?: ToBegin
  readonly run?: () => void
}

export interface SearchGroup {
  readonly title: string
  readonly items: readonly SearchItem[]
}

export function pageItems(pages: readonly PageSummary[]): SearchItem[] {
  return pages.map(({ id, title, path, description }) => ({
    id: `page:${id}`,
    title,
    address: path,
    synonyms: [description],
    path: `/pages/${id}`,
  }))
}

/** What can be begun from every screen. */
export function actItems(role: Role): SearchItem[] {
  return role === 'reviewer' ? [] : [...ACTS]
}

const ACTS: readonly SearchItem[] = [
  {
    id: 'act:add-page',
    title: 'Add page',
    synonyms: ['new page', 'create page'],
    path: '/',
    toBegin: { begin: 'add-page' },
  },
  {
    id: 'act:add-link',
    title: 'Add navigation link',
    synonyms: ['menu', 'new link'],
    path: '/navigation',
    toBegin: { begin: 'add-link' },
  },
]

export function screenItems(role: Role): SearchItem[] {
  const screens = screensFor(role).map(({ path, title, synonyms }) => ({
    id: `screen:${path}`,
    title,
    synonyms,
    path,
  }))
  const settings = SETTINGS.map(({ id, title, synonyms }) => ({
    id: `setting:${id}`,
    title,
    about: 'Settings of the site',
    synonyms,
    path: `/settings#${id}`,
  }))
  return [...screens, ...settings]
}

export function mediaItems({ pictures, files }: Library): SearchItem[] {
  return [
    ...Object.values(pictures).map(({ id, name, alt }) => ({
      id: `picture:${id}`,
      title: name,
      about: alt,
      path: `/media-library?picture=${id}`,
    })),
    ...Object.values(files).map(({ id, name }) => ({
      id: `file:${id}`,
      title: name,
      path: `/media-library?show=files&search=${encodeURIComponent(name)}`,
    })),
  ]
}

const PART_TYPE_WORDS: Readonly<Record<PartType, string>> = {
  pattern: 'pattern',
  shared: 'shared section',
  template: 'page template',
}

export function partItems(parts: readonly SavedPart[]): SearchItem[] {
  return parts
    .filter(({ binnedAt }) => binnedAt === null)
    .map(({ id, name, about, purpose, type }) => ({
      id: `part:${id}`,
      title: name,
      about,
      synonyms: [PART_TYPE_WORDS[type], PART_PURPOSES[purpose]],
      path: `/library?part=${id}`,
    }))
}

export function helpItems(): SearchItem[] {
  return HELP_TOPICS.map(({ id, title, synonyms }) => ({
    id: `help:${id}`,
    title,
    synonyms,
    path: `/help#${id}`,
  }))
}
