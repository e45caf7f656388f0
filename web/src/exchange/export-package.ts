import type { ExportFacts } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'

/** What is to be exported: parts or pages by their ids, or the whole site. */
export type Exported =
  | 'all'
  | { readonly parts: readonly string[] }
  | { readonly pages: readonly string[]; readonly withSubPages: boolean }

function exportAddress(what: Exported): string {
  const query = new URLSearchParams()
  if (what === 'all') query.set('all', 'yes')
  else if ('parts' in what) for (const id of what.parts) query.append('part', id)
  else {
    for (const id of what.pages) query.append('page', id)
    if (what.withSubPages) query.set('under', 'yes')
  }
  return `${inSite('/export')}?${query}`
}

/** The bytes of a package. Throws `ApiError` where it can't be exported. */
export async function packageOf(what: Exported, signal: AbortSignal): Promise<Blob> {
  const address = exportAddress(what)
  // Whatever is wrong with it is told in words here; the package itself is bytes.
  await request<ExportFacts>(`${address}&check=yes`)
  const answer = await fetch(address, { signal })
  if (!answer.ok) throw new Error('The parts could not be read. Nothing was copied. Try again.')
  return answer.blob()
}

/** Has the browser save a package under a name. Gives what it holds, in words; throws `ApiError` where it can't be exported. */
export async function exportPackage(what: Exported, name: string): Promise<string> {
  const address = exportAddress(what)
  const facts = await request<ExportFacts>(`${address}&check=yes`)
  const link = document.createElement('a')
  link.href = address
  link.download = `${name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-')}.gullyline.zip`
  link.click()
  return `Exported ${factsWords(facts)}.`
}

function factsWords({ parts, pages, media }: ExportFacts): string {
  const counted = (count: number, one: string, several: string): readonly string[] =>
    count === 0 ? [] : [count === 1 ? `1 ${one}` : `${count} ${several}`]
  return [
    ...counted(pages, 'page', 'pages'),
    ...counted(parts, 'part', 'parts'),
    ...counted(media, 'picture or file', 'pictures and files'),
  ].join(', ')
}
