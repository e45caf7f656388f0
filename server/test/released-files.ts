import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { ReleasedPages } from '@gullyline/core'
import { contentFolder } from '../src/media/folders.ts'
import { Releases } from '../src/publish/manifest.ts'

/** The name in the content store of the file at each address of the release that visitors of a site see. */
export function releasedFiles(dataDir: string, siteId = 'tarrowmoor'): Readonly<Record<string, string>> {
  const releases = new Releases(dataDir)
  const { addresses, records } = releases.manifest(releases.current(siteId)!)!
  const parts = records.map(
    (name) => JSON.parse(readFileSync(join(contentFolder(dataDir), name), 'utf8')) as ReleasedPages,
  )
  const pages = parts.flatMap((part) => Object.values(part))
  return Object.assign({ ...addresses }, ...pages.map(({ files }) => files)) as Record<string, string>
}
