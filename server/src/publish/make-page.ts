/** Makes the files of one page. */
import { join } from 'node:path'
import { defaultRegistry, recordReads, renderPage, type Page, type ReadName } from '@gullyline/core'
import { fontFolder } from '../media/folders.ts'
import type { ContentStore } from './content-store.ts'
import type { LivePage, LiveSite } from './live-site.ts'
import type { PageRecord } from './page-records.ts'
import type { PreparedContext } from './prepare-context.ts'

/** A file of the library that a page shows or links to, and that is not there. */
export interface MissingFile {
  readonly page: LivePage
  /** Its address. */
  readonly path: string
  /** What the library calls it. */
  readonly name: string
}

/** What static hosts look for, and our own server: the page for addresses that do not exist. */
const NOT_FOUND_FILE = '/404.html'

interface Making {
  readonly live: LiveSite
  readonly context: PreparedContext
  readonly store: ContentStore
  readonly dataDir: string
}

interface MadePage {
  readonly reads: readonly ReadName[]
  readonly record: Pick<PageRecord, 'reads' | 'files'>
  readonly missing: readonly MissingFile[]
}

export async function makePage(
  page: LivePage,
  document: Page,
  { live, context, store, dataDir }: Making,
): Promise<MadePage> {
  const recording = recordReads(context.of(page))
  const { description, isListed, sharePicture } = page.settings
  const rendered = renderPage(
    {
      page: document,
      header: live.header.document,
      footer: live.footer.document,
      title: page.title,
      description,
      isListed,
      sharePicture,
      ...(page.isNotFound ? {} : { path: page.path }),
    },
    defaultRegistry,
    recording.context,
    (content, type) => context.shared.link(content, type),
  )
  const reads = recording.reads()
  const address = page.isNotFound ? NOT_FOUND_FILE : `${page.path}index.html`
  const files: Record<string, string> = {
    [address]: await store.putText(rendered.html, '.html'),
  }
  for (const [content, type] of [
    [rendered.css, 'css'],
    [rendered.script, 'js'],
  ] as const)
    if (content !== '')
      files[context.shared.link(content, type).href] = await context.shared.put(content, type)
  for (const [path] of rendered.css.matchAll(/\/fonts\/[\w.-]+/g)) {
    const font = context.fontFiles.get(path) ?? path.slice('/fonts/'.length)
    const name = await store.adopt(path, [join(fontFolder(dataDir), font)])
    if (name !== undefined) files[path] = name
  }
  const missing: MissingFile[] = []
  for (const { path, name } of reads.flatMap((read) => libraryFiles(live, read))) {
    const stored = await store.adopt(path, [join(dataDir, path)])
    if (stored === undefined) missing.push({ page, path, name })
    else files[path] = stored
  }
  return { reads, record: { reads, files }, missing }
}

/** Returns the files of the library that a page shows or links to, if what it read is a picture or a file. */
export function libraryFiles(
  { pictures, files }: Pick<LiveSite, 'pictures' | 'files'>,
  read: ReadName,
): readonly { readonly path: string; readonly name: string }[] {
  const [what, id = ''] = read.split(':', 2)
  if (what === 'picture' && Object.hasOwn(pictures, id)) {
    const { name, fallback, sources } = pictures[id]!
    return [fallback, ...sources.flatMap(({ avif, webp }) => [avif, webp])].map((path) => ({ path, name }))
  }
  if (what === 'file' && Object.hasOwn(files, id)) return [files[id]!]
  return []
}
