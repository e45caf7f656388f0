import { readFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { defaultRegistry, PACKAGE_FORMAT, withCopies, type Page, type PagePackage } from '@gullyline/core'
import { demoSite } from './site.ts'

/** Size of the pictures in px, as `make/pictures.ts` paints them. */
const WIDE = { width: 2200, height: 1320 }
const NORMAL = { width: 1920, height: 1440 }
const WIDE_IDS = ['tmdome', 'tmdusk']

/** The sample site's first page with everything it needs, as one JSON object. */
export async function examplePackage(): Promise<PagePackage> {
  const [home] = demoSite.pages
  if (!home) throw new Error('The sample site has no pages')
  const used = demoSite.pictures.filter(({ id }) => JSON.stringify(home.document).includes(`"${id}"`))
  const media = await Promise.all(
    used.map(async ({ id, file, alt }) => {
      const size = WIDE_IDS.includes(id) ? WIDE : NORMAL
      const data = await readFile(file, 'base64')
      return [id, { name: basename(file), alt, ...size, type: 'image/jpeg' as const, data }] as const
    }),
  )
  const fonts = await Promise.all(
    demoSite.fontFiles.map(async (file) => [basename(file), await readFile(file, 'base64')] as const),
  )
  return {
    format: PACKAGE_FORMAT,
    site: { name: demoSite.name, language: demoSite.language, home: '/' },
    title: home.title,
    description: home.description,
    page: withoutParts(home.document),
    header: demoSite.header,
    footer: demoSite.footer,
    look: demoSite.look,
    paths: Object.fromEntries(demoSite.pages.map(({ id, slug, parentId }) => [id, pathOf(slug, parentId)])),
    media: Object.fromEntries(media),
    fonts: Object.fromEntries(fonts),
  }
}

/** A package holds one page: what it shares with others comes as copies. */
function withoutParts(page: Page): Page {
  let count = 0
  const newId = (): string => `copy${count++}`
  return demoSite.parts.reduce(
    (before, { id, document }) => withCopies(before, id, document, defaultRegistry, newId),
    page,
  )
}

function pathOf(slug: string, parentId: string | undefined): string {
  const parent = demoSite.pages.find((page) => page.id === parentId)
  return `${parent ? pathOf(parent.slug, parent.parentId) : '/'}${slug === '' ? '' : `${slug}/`}`
}
