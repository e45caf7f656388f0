/** What the search can find, besides commands and the text on pages. */
import type { PageSummary, Role, SiteInfo } from '@gullyline/core'
import { HELP_TOPICS } from '../help/topics.ts'
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

export function mediaItems({ pictures, files }: SiteInfo): SearchItem[] {
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

export function helpItems(): SearchItem[] {
  return HELP_TOPICS.map(({ id, title, synonyms }) => ({
    id: `help:${id}`,
    title,
    synonyms,
    path: `/help#${id}`,
  }))
}
