/** Lists as other programs write them, brought to what HTML means by a list: items, each with at most a list inside. */

/** A piece of HTML with its lists mended. */
export function withMendedLists(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html')
  mendLists(body)
  return body.innerHTML
}

/** Changes the lists of a piece of HTML, which belongs to no window. */
export function mendLists(body: HTMLElement): void {
  listsFromWord(body)
  joinSplitLists(body)
}

/**
 * Word processors write lists as paragraphs with a sign at their beginning ("mso-list", as Microsoft's own HTML calls
 * it; common practice, no source): they become lists, nested by their level.
 */
function listsFromWord(body: HTMLElement): void {
  for (const first of body.querySelectorAll<HTMLElement>('p')) {
    if (!first.isConnected || wordLevel(first) === 0) continue
    const items = [first]
    for (let next = first.nextElementSibling; next && wordLevel(next) > 0; next = next.nextElementSibling)
      items.push(next as HTMLElement)
    first.before(listOf(items, 1))
    for (const item of items) item.remove()
  }
}

function wordLevel(element: Element): number {
  if (element.tagName !== 'P') return 0
  const style = element.getAttribute('style') ?? ''
  const level = /mso-list:[^;]*level(\d)/.exec(style)?.[1]
  return level === undefined ? 0 : Number(level)
}

function listOf(items: readonly HTMLElement[], level: number): HTMLElement {
  const list = document.createElement(isNumbered(items[0]!) ? 'ol' : 'ul')
  for (let at = 0; at < items.length;) {
    const item = document.createElement('li')
    for (const sign of items[at]!.querySelectorAll('[style*="mso-list:Ignore"], [style*="mso-list: Ignore"]'))
      sign.remove()
    item.append(...items[at]!.childNodes)
    let end = at + 1
    while (end < items.length && wordLevel(items[end]!) > level) end++
    if (end > at + 1) item.append(listOf(items.slice(at + 1, end), level + 1))
    list.append(item)
    at = end
  }
  return list
}

function isNumbered(item: HTMLElement): boolean {
  const sign =
    item.querySelector('[style*="mso-list:Ignore"], [style*="mso-list: Ignore"]')?.textContent ?? ''
  return /^\s*\(?(\d+|[a-zA-Z]|[ivxlcIVXLC]+)[.)]/.test(sign)
}

/**
 * Lists inside a list but in none of its items, as old HTML has them, go into the item before them. Where there is none,
 * the list goes on from the one before it: LibreOffice Writer ends its list before each list inside, and begins another.
 */
function joinSplitLists(body: HTMLElement): void {
  for (const list of body.querySelectorAll('ul, ol')) {
    if (!list.isConnected) continue
    const before = listBefore(list)
    if (before && isList(list.firstElementChild)) {
      const next = listAfter(list)
      goOn(before, list)
      if (next && next.tagName === before.tagName && !isList(next.firstElementChild)) goOn(before, next)
    } else if (list.parentElement?.tagName !== 'LI') tidy(list)
  }
}

/** Puts what a list holds at the end of another one; a list in it goes on from the one at the end of the last item. */
function goOn(list: Element, more: Element): void {
  for (const child of [...more.children]) {
    const last = list.lastElementChild
    const inside = last?.lastElementChild
    if (!isList(child)) list.append(child)
    else if (isList(inside)) goOn(inside, child)
    else if (last) last.append(tidy(child))
    else list.append(...tidy(child).children)
  }
  more.remove()
}

/** The list with what it holds in items, at every depth. */
function tidy(list: Element): Element {
  for (const child of [...list.children]) {
    if (isList(child)) {
      const last = child.previousElementSibling
      if (last) last.append(tidy(child))
      else child.replaceWith(...tidy(child).children)
    } else for (const inside of child.querySelectorAll(':scope > ul, :scope > ol')) tidy(inside)
  }
  return list
}

function isList(element: Element | null | undefined): element is HTMLUListElement | HTMLOListElement {
  return element?.tagName === 'UL' || element?.tagName === 'OL'
}

function listBefore(list: Element): Element | undefined {
  const before = list.previousElementSibling
  return isList(before) && !hasTextBetween(before, list) ? before : undefined
}

function listAfter(list: Element): Element | undefined {
  const after = list.nextElementSibling
  return isList(after) && !hasTextBetween(list, after) ? after : undefined
}

function hasTextBetween(from: Element, to: Element): boolean {
  for (let node = from.nextSibling; node && node !== to; node = node.nextSibling)
    if ((node.textContent ?? '').trim() !== '') return true
  return false
}
