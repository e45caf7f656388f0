import { cutShort } from '../page/cut-short.ts'
import { isFileLink, isPageLink } from '../page/link.ts'
import { hrefFault } from '../kit/allow-list.ts'
import type { Check, CheckInput } from './define-check.ts'

/** A link to a page, place or file that does not exist, or that leads nowhere. */
export const brokenLink: Check = {
  rule: 'broken-link',
  severity: 'error',
  source: 'common practice, no source',
  find: (input) =>
    input.nodes.flatMap(({ id, facts }) =>
      (facts.links ?? []).flatMap(({ words, link, isPicture }) => {
        const fault = faultOf(input, link)
        return fault
          ? [
              {
                nodeId: id,
                message: `${isPicture ? 'The link of this picture' : `The link “${words.trim()}”`} ${fault}`,
              },
            ]
          : []
      }),
    ),
}

function faultOf(
  { anchors: placesHere, site }: CheckInput,
  link: Parameters<typeof isPageLink>[0] | undefined,
): string | undefined {
  if (!link) return 'leads nowhere yet'
  if (isPageLink(link)) {
    if (!Object.hasOwn(site.pages, link.page)) return 'leads to a page that does not exist'
    const anchors = site.pages[link.page]
    return link.anchor !== undefined && anchors && !anchors.includes(link.anchor)
      ? `leads to “${link.anchor}”, and that page has no such place`
      : undefined
  }
  if (isFileLink(link))
    return Object.hasOwn(site.files, link.file) ? undefined : 'leads to a file that is not in the library'
  const shown = `“${cutShort(link.href, 80)}”`
  switch (hrefFault(link.href)) {
    case 'not-allowed':
      return 'has an address that can’t be linked to'
    case 'incomplete':
      return `has the incomplete address ${shown}: put https:// before it`
    case 'not-an-address':
      return `has the address ${shown}, which no browser can read: look for a slip in its first part`
  }
  const here = /^#(.+)$/.exec(link.href)?.[1]
  const known = here === undefined || placesHere.has(here)
  return known ? undefined : `leads to “${here}”, and this page has no such place`
}
