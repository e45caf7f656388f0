/** Where addresses lead that pages had before: beside the folder of a release, so that visitors can't read the list. */
import { writeFile } from 'node:fs/promises'

export async function writeRedirects(
  releaseFolder: string,
  redirects: Readonly<Record<string, string>>,
): Promise<void> {
  await writeFile(redirectsOf(releaseFolder), JSON.stringify(redirects), { mode: 0o600 })
}

export function redirectsOf(releaseFolder: string): string {
  return `${releaseFolder}.redirects.json`
}
