/** Where addresses lead that pages had before: beside the folder of a release, so that visitors can't read the list. */
import { readFile, readlink, writeFile } from 'node:fs/promises'
import { liveDir } from '../media/folders.ts'

export async function writeRedirects(
  releaseFolder: string,
  redirects: Readonly<Record<string, string>>,
): Promise<void> {
  await writeFile(redirectsOf(releaseFolder), JSON.stringify(redirects), { mode: 0o600 })
}

/** The redirects of the release that visitors see; none where there is no such release. */
export async function readRedirects(dataDir: string): Promise<Record<string, string>> {
  const current = liveDir(dataDir)
  const release = await readlink(current).catch(() => undefined)
  if (release === undefined) return {}
  const json = await readFile(redirectsOf(current.replace(/[^/]*$/, release)), 'utf8').catch(() => '{}')
  return JSON.parse(json) as Record<string, string>
}

export function redirectsOf(releaseFolder: string): string {
  return `${releaseFolder}.redirects.json`
}
