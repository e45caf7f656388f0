/** The published site as a plain folder, for any host that serves files. */
import { copyFile, mkdir, readdir, readFile, readlink, rename, rm, rmdir, writeFile } from 'node:fs/promises'
import { dirname, join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import type { Manifest, ReleasedPages } from '@gullyline/core'
import { EXIT, Unusable, type Exit, type Streams } from './outcome.ts'

const USAGE = 'export-site --out DIR [--site ID]'
/** Where `npm start` keeps its data, unless it is told otherwise. */
const DATA = process.env.GULLYLINE_DATA ?? '.data'
/** Somebody who waits is told of every so many files. */
const TELL_EVERY = 500

/**
 * Writes what visitors see now into a new folder: every page, its stylesheets, pictures and files, and for each address
 * that a page had before a page that leads on. Nothing is there until all of it is; an interrupt leaves nothing.
 */
export async function exportSite(args: readonly string[], { out, error }: Streams): Promise<Exit> {
  const given = optionsOf(args)
  const target = resolve(given.out)
  await refuseUsed(target)
  const live = join(DATA, 'live')
  const manifest = await readManifest(live, given.site)
  const { redirects } = manifest
  const begun = `${target}.begun-${process.pid}`
  const leave = (): void => void rm(begun, { recursive: true, force: true }).then(() => process.exit(130))
  process.once('SIGINT', leave)
  process.once('SIGTERM', leave)
  try {
    const addresses = await addressesOf(live, manifest)
    const files = Object.entries(addresses)
    for (const [i, [address, name]] of files.entries()) {
      await place(begun, address, (to) => copyFile(join(live, 'content', name), to))
      if ((i + 1) % TELL_EVERY === 0) error(`${i + 1} of ${files.length} files\n`)
    }
    const old = Object.entries(redirects).filter(([path]) => !Object.hasOwn(addresses, fileAt(path)))
    for (const [path, to] of old) await place(begun, fileAt(path), (file) => writeFile(file, leadOn(to)))
    await rmdir(target).catch(() => undefined)
    await rename(begun, target)
    out(`${files.length + old.length} files in ${target}\n`)
    return EXIT.done
  } catch (cause) {
    await rm(begun, { recursive: true, force: true })
    throw new Unusable(reasonOf(cause))
  } finally {
    process.off('SIGINT', leave)
    process.off('SIGTERM', leave)
  }
}

interface Options {
  readonly out: string
  readonly site: string | undefined
}

function optionsOf(args: readonly string[]): Options {
  try {
    const options = { out: { type: 'string' }, site: { type: 'string' } } as const
    const { out, site } = parseArgs({ args: [...args], options }).values
    if (out !== undefined && out !== '') return { out, site }
  } catch {
    // Told below.
  }
  throw new Unusable(`usage: ${USAGE}`)
}

async function refuseUsed(target: string): Promise<void> {
  const there = await readdir(target).catch((error: unknown) => {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return []
    throw new Unusable(`${target} can’t be written to. Nothing was written; name another folder.`)
  })
  if (there.length > 0)
    throw new Unusable(`${target} is not empty. Nothing was written; name a folder that is new or empty.`)
}

/** The link to what visitors see of a site begins so; the id of the site follows. */
const CURRENT = 'current-'

async function readManifest(live: string, siteId: string | undefined): Promise<Manifest> {
  const names = await readdir(live).catch((): string[] => [])
  const sites = names.filter((name) => name.startsWith(CURRENT)).map((name) => name.slice(CURRENT.length))
  const wanted = siteId ?? sites[0]
  if (wanted === undefined || !sites.includes(wanted))
    throw new Unusable(
      `Nothing is published in ${resolve(DATA)}. Nothing was written; publish a page first, or name the data folder in GULLYLINE_DATA.`,
    )
  if (siteId === undefined && sites.length > 1)
    throw new Unusable(
      `There are several sites: ${sites.join(', ')}. Nothing was written; name one with --site.`,
    )
  return JSON.parse(
    await readFile(join(live, await readlink(join(live, CURRENT + wanted))), 'utf8'),
  ) as Manifest
}

/** The name of the file at each address. */
async function addressesOf(
  live: string,
  { addresses, records }: Manifest,
): Promise<Readonly<Record<string, string>>> {
  const all: Record<string, string> = { ...addresses }
  for (const name of records) {
    const pages = JSON.parse(await readFile(join(live, 'content', name), 'utf8')) as ReleasedPages
    for (const { files } of Object.values(pages)) Object.assign(all, files)
  }
  return all
}

/** The file that hosts serve for an address of a page. */
function fileAt(path: string): string {
  return path.endsWith('/') ? `${path}index.html` : path
}

async function place(folder: string, address: string, write: (to: string) => Promise<void>): Promise<void> {
  const to = join(folder, address)
  await mkdir(dirname(to), { recursive: true })
  await write(to)
}

/** A page that leads to another (HTML standard, "Refresh state"; RFC 6596, "canonical"), since plain hosts know no redirects of ours. */
function leadOn(to: string): string {
  const address = encodeURI(to).replaceAll('&', '&amp;').replaceAll('"', '&quot;')
  return `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>Moved</title><meta http-equiv="refresh" content="0;url=${address}"><link rel="canonical" href="${address}"></head><body><p><a href="${address}">This page has moved.</a></p></body></html>\n`
}

function reasonOf(cause: unknown): string {
  const { code, message } = cause as NodeJS.ErrnoException
  if (code === 'ENOENT')
    return 'The site was published again many times meanwhile. Nothing was written; export it again.'
  if (code === 'ENOSPC')
    return 'There is no room on the disk for the site. Nothing was written; make room, and try again.'
  return `The site could not be written: ${message}. Nothing was left behind.`
}
