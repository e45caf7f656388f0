/**
 * A page package: one JSON object with a page and all it needs to be shown, so that it can be rendered and checked
 * without a server. Documented for other people's scripts in docs/command-line.md.
 */
import { ownValuesOf } from '../blocks/node-own-values.ts'
import type { Problem, Registry } from '../blocks/registry.ts'
import { validatePage } from '../blocks/validate-page.ts'
import type { Look } from '../look/look.ts'
import { migrateLook } from '../look/migrate-look.ts'
import { migratePage } from '../page/migrate.ts'
import { sizesFault } from '../sizes/change-sizes.ts'
import type { Page } from '../page/page.ts'
import type { SiteContext } from '../kit/site-context.ts'
import { pageTree } from '../site/page-tree.ts'

export const PACKAGE_FORMAT = 'gullyline-package/1'

export interface PackagedPicture {
  readonly name: string
  readonly alt: string
  readonly width: number
  readonly height: number
  readonly type: keyof typeof EXTENSIONS
  /** The file, in base64 (RFC 4648, section 4). */
  readonly data: string
}

export interface PackagedFile {
  /** With its ending; what it is called in the folder it is written to. */
  readonly name: string
  /** The file, in base64 (RFC 4648, section 4). */
  readonly data: string
}

export interface PagePackage {
  readonly format: typeof PACKAGE_FORMAT
  readonly site: { readonly name: string; readonly language: string; readonly home: string }
  readonly title: string
  readonly description: string
  readonly page: Page
  readonly header?: Page
  readonly footer?: Page
  readonly look: Look
  /** Addresses by page id, for links to pages of the site. */
  readonly paths: Readonly<Record<string, string>>
  readonly media: Readonly<Record<string, PackagedPicture>>
  /** Files that the page links to. */
  readonly files?: Readonly<Record<string, PackagedFile>>
  /** Font files of the look in base64, by file name. */
  readonly fonts: Readonly<Record<string, string>>
}

/** File name endings of the picture types a package may hold. SVG is not among them: it can carry scripts. */
export const EXTENSIONS = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/avif': 'avif',
} as const

/** Checks everything of a package but its pages; generated from `packageSchema`. */
export type ShapeCheck = (value: unknown) => readonly Problem[]

/** Returns a package that an older version wrote, with its documents and its look as ones of today's format; never throws. */
export function migratePackage(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value
  const trees = ['page', 'header', 'footer'].filter((name) => Object.hasOwn(value, name))
  const given = value as Readonly<Record<string, unknown>>
  return {
    ...value,
    ...Object.fromEntries(trees.map((name) => [name, migratePage(given[name])])),
    ...('look' in given ? { look: migrateLook(given.look) } : {}),
  }
}

/** All problems of a package, each with its JSON pointer; empty when it can be rendered. Takes anything, never throws. */
export function validatePackage(value: unknown, registry: Registry, checkShape: ShapeCheck): Problem[] {
  const shape = checkShape(value)
  if (shape.length > 0) return [...shape]
  const given = value as PagePackage
  const trees = [
    ['page', given.page, 'page'],
    ['header', given.header, 'site-header'],
    ['footer', given.footer, 'site-footer'],
  ] as const
  return [
    ...trees.flatMap(([name, tree, rootKind]) =>
      tree === undefined
        ? []
        : treeProblems(tree, given.look, registry, rootKind).map((problem) => ({
            ...problem,
            pointer: `/${name}${problem.pointer}`,
          })),
    ),
    ...lookProblems(given.look),
  ]
}

function treeProblems(tree: Page, look: Look, registry: Registry, rootKind: string): Problem[] {
  const problems = validatePage(tree, registry, rootKind)
  if (problems.length > 0 || look.ownValues === true) return problems
  return Object.entries(tree.nodes).flatMap(([id, node]) =>
    ownValuesOf(node, registry).map(({ pointer, value }) => ({
      pointer: `/nodes/${id}${pointer}`,
      message: `${value} is a custom value, and "ownValues" of the look does not allow custom values`,
    })),
  )
}

function lookProblems(look: Look): Problem[] {
  const { surfaces, pageSurface } = look
  const fault = sizesFault(look)
  return [
    ...(Object.hasOwn(surfaces, pageSurface)
      ? []
      : [{ pointer: '/look/pageSurface', message: 'must be the name of one of the surfaces' }]),
    ...(fault === undefined ? [] : [{ pointer: '/look/sizes', message: fault }]),
  ]
}

/** What a renderer needs, from a package. Files are addressed relative to the page: media/, files/, fonts/. */
export function packageContext({ site, title, look, paths, media, files = {} }: PagePackage): SiteContext {
  return {
    site,
    look,
    paths,
    parts: {},
    navigation: [],
    page: { id: '', title },
    tree: pageTree([]),
    pictures: Object.fromEntries(
      Object.entries(media).map(([id, { name, alt, width, height, type }]) => [
        id,
        { id, name, alt, width, height, sources: [], fallback: `media/${id}.${EXTENSIONS[type]}` },
      ]),
    ),
    files: Object.fromEntries(
      Object.entries(files).map(([id, { name, data }]) => [
        id,
        {
          id,
          name,
          type: name.slice(name.lastIndexOf('.') + 1),
          bytes: Math.floor((data.length * 3) / 4),
          path: packagedFilePath(id, name),
        },
      ]),
    ),
    fontBase: 'fonts/',
    purpose: 'publish',
  }
}

/** Where a packaged file stands, relative to the page. */
export function packagedFilePath(id: string, name: string): string {
  return `files/${id}/${name}`
}
