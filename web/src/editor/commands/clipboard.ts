import { fragmentFault, type Fragment, type Registry } from '@gullyline/core'

const KEY = 'gullyline.clipboard'

/** What blocks are called on the clipboard of the system, where another site's editor finds them, too. */
export const BLOCKS_TYPE = 'application/x-gullyline-blocks+json'

/** Keeps copied blocks where every page of this browser finds them. */
export function writeClipboard(storage: Pick<Storage, 'setItem'>, fragments: readonly Fragment[]): void {
  storage.setItem(KEY, JSON.stringify(fragments))
}

/** What was copied last, in order; empty when there is nothing that can be read. */
export function readClipboard(storage: Pick<Storage, 'getItem'>, registry: Registry): readonly Fragment[] {
  return readFragments(storage.getItem(KEY) ?? '', registry)
}

/** The most that is read of blocks on a clipboard, in characters. */
const MOST_CHARACTERS = 8_000_000

/**
 * Copied blocks, from JSON of wherever: only trees of known kinds that are valid are taken, so that copying, placing and
 * drawing them is safe. Whether they fit a certain page, the edit decides. Never throws, and never loops.
 */
export function readFragments(json: string, registry: Registry): readonly Fragment[] {
  if (json.length > MOST_CHARACTERS) return []
  try {
    const value: unknown = JSON.parse(json)
    return Array.isArray(value) ? value.filter((one) => isFragment(one, registry)) : []
  } catch {
    return []
  }
}

function isFragment(value: unknown, registry: Registry): value is Fragment {
  const { rootId, nodes } = (value ?? {}) as Partial<Fragment>
  return (
    typeof rootId === 'string' &&
    nodes !== undefined &&
    fragmentFault({ rootId, nodes }, registry) === undefined
  )
}

/** Attributes that mean something outside of the page. */
const KEPT = new Set(['href', 'src', 'alt', 'colspan', 'rowspan', 'scope', 'start', 'lang'])

/** Elements of the page as other programs take them: their meaning, without our classes and ids. */
export function htmlForOthers(elements: readonly Element[]): string {
  return elements
    .map((element) => {
      const copy = element.cloneNode(true) as Element
      for (const drawn of copy.querySelectorAll('svg, script, style')) drawn.remove()
      for (const one of [copy, ...copy.querySelectorAll('*')])
        for (const { name, value } of [...one.attributes]) {
          if (!KEPT.has(name)) one.removeAttribute(name)
          // Elsewhere an address without its host leads nowhere.
          else if (name === 'href' || name === 'src')
            one.setAttribute(name, new URL(value, element.baseURI).href)
        }
      return copy.outerHTML
    })
    .join('\n')
}
