/**
 * Reads a page that a browser laid out into plain data. Runs where a document is: in the editor, in a hidden frame, and in
 * the browser that the command line starts.
 */
import {
  cutShort,
  rgbaOf,
  type Box,
  type MeasuredBand,
  type MeasuredElement,
  type MeasuredPicture,
  type MeasuredTarget,
  type MeasuredText,
} from '@gullyline/core'

/** What is seen nowhere: kept for those who hear the page. */
const HIDDEN_SIDE = 1
/** So much of a text is enough to call it by. */
const CALLED_BY = 60

/** What of an element's styles changes with the size alone, and not with each width. */
interface Style {
  readonly isBlock: boolean
  readonly clips: MeasuredElement['clips']
  readonly isScrolled: boolean
  readonly isOutdented: boolean
  readonly isAbsolute: boolean
  readonly isLifted: boolean
  readonly layer: number | undefined
  readonly isOpaque: boolean
  readonly wraps: boolean
  readonly inset: { readonly left: number; readonly right: number } | undefined
  readonly isBold: boolean
  readonly colour: MeasuredText['colour']
}

/** Reads bands of one document again and again. What it knows of styles is forgotten by `forget`, when the size changed. */
export class PageMeasurer {
  readonly #document: Document
  readonly #view: Window & typeof globalThis
  #styles = new Map<Element, Style>()
  readonly #probes = new Map<string, HTMLElement>()
  /** What the markup of pictures says, which no layout changes. */
  readonly #sources = new WeakMap<Element, ReturnType<typeof readSource>>()

  constructor(document: Document) {
    this.#document = document
    this.#view = document.defaultView!
  }

  /** Must be called when styles may be others: the page changed, or its size. */
  forget(): void {
    this.#styles = new Map()
  }

  /** Gives lengths that pictures name in `sizes` an element to be read off, before the next layout. */
  prepare(): void {
    for (const source of this.#document.querySelectorAll('source[sizes]'))
      for (const { length } of this.#sourceOf(source).sizes) this.#probe(length)
  }

  measure(band: Element): MeasuredBand {
    const elements: MeasuredElement[] = []
    const { scrollX, scrollY, innerWidth } = this.#view
    const page = { x: scrollX, y: scrollY }
    const walk = (element: Element, parent: number, id: string, around: Element): void => {
      const rect = element.getBoundingClientRect()
      const own = element.getAttribute('data-node') ?? id
      const isNothing = rect.width === 0 && rect.height === 0
      if (!isNothing && rect.width <= HIDDEN_SIDE && rect.height <= HIDDEN_SIDE) return
      const style = this.#styleOf(element)
      // A word in a line is a part of its text, unless it is pressed.
      const target = isTarget(element) ? this.#target(element, style) : undefined
      let at = parent
      if (!isNothing && (style.isBlock || target || element instanceof this.#view.HTMLImageElement)) {
        at = elements.length
        elements.push(
          this.#element(element, { parent, id: own, box: boxOf(rect, page), style, target, page, around }),
        )
      }
      for (const child of shownChildren(element)) walk(child, at, own, element)
    }
    walk(band, -1, band.getAttribute('data-node') ?? '', band)
    return { width: innerWidth, box: boxOf(band.getBoundingClientRect(), page), elements }
  }

  #element(
    element: Element,
    {
      parent,
      id,
      box,
      style,
      target,
      page,
      around,
    }: {
      readonly parent: number
      readonly id: string
      readonly box: Box
      readonly style: Style
      readonly target: MeasuredTarget | undefined
      readonly page: Point
      readonly around: Element
    },
  ): MeasuredElement {
    const inset = style.inset ?? insetOf(this.#view.getComputedStyle(element))
    const text = style.isBlock ? this.#text(element, style, page) : undefined
    const picture =
      element instanceof this.#view.HTMLImageElement ? this.#picture(element, around) : undefined
    return {
      id,
      parent,
      box,
      content: { left: box.x + inset.left, right: box.x + box.width - inset.right },
      clips: style.clips,
      isScrolled: style.isScrolled,
      ...(style.isOutdented ? { isOutdented: true } : {}),
      isAbsolute: style.isAbsolute,
      isLifted: style.isLifted,
      isOpaque: style.isOpaque,
      wraps: style.wraps,
      ...(style.layer === undefined ? {} : { layer: style.layer }),
      ...(text ? { text } : {}),
      ...(picture ? { picture } : {}),
      ...(target ? { target } : {}),
    }
  }

  #styleOf(element: Element): Style {
    let style = this.#styles.get(element)
    if (!style) this.#styles.set(element, (style = readStyle(this.#view.getComputedStyle(element))))
    return style
  }

  /** The text of an element that lays out lines itself. */
  #text(element: Element, style: Style, page: Point): MeasuredText | undefined {
    if (!hasWords(element, (child) => this.#styleOf(child).isBlock)) return undefined
    const own = [...element.childNodes].filter(
      (child) => child.nodeType !== 1 || !this.#styleOf(child as Element).isBlock,
    )
    const rects = own
      .flatMap((node) => this.#rectsOf(node))
      .filter(({ width, height }) => width > 0 && height > 0)
    if (rects.length === 0) return undefined
    const words = own
      .map((node) => node.textContent ?? '')
      .join('')
      .replace(/\s+/g, ' ')
      .trim()
    const lines = linesOf(rects.map((rect) => boxOf(rect, page)))
    const role = roleOf(element)
    return {
      words: cutShort(words, CALLED_BY),
      role,
      lines,
      characters: words.length,
      brokenWords:
        (role !== 'heading' && role !== 'button') || lines.length < 2 ? 0 : this.#brokenWords(element),
      fontSize: parseFloat(this.#view.getComputedStyle(element).fontSize),
      isBold: style.isBold,
      colour: style.colour,
    }
  }

  #rectsOf(node: Node): readonly DOMRect[] {
    const range = this.#document.createRange()
    range.selectNodeContents(node)
    return [...range.getClientRects()]
  }

  /** Words on two lines, of which neither a hyphen nor a space nor a slash allows the break. */
  #brokenWords(element: Element): number {
    const range = this.#document.createRange()
    const texts = this.#document.createTreeWalker(element, this.#view.NodeFilter.SHOW_TEXT)
    let broken = 0
    for (let node = texts.nextNode(); node; node = texts.nextNode())
      for (const { index, 0: word } of (node.nodeValue ?? '').matchAll(
        /[^\s\-\u00ad\u2010-\u2014\u200b/]+/g,
      )) {
        range.setStart(node, index)
        range.setEnd(node, index + word.length)
        const rects = [...range.getClientRects()].filter(({ width }) => width > 0)
        if (linesOf(rects.map((rect) => boxOf(rect, { x: 0, y: 0 }))).length > 1) broken++
      }
    return broken
  }

  #picture(image: HTMLImageElement, around: Element): MeasuredPicture | undefined {
    const [width, height] = [Number(image.getAttribute('width')), Number(image.getAttribute('height'))]
    if (!(width > 0 && height > 0)) return undefined
    const style = this.#view.getComputedStyle(image)
    const [x = 0.5, y = 0.5] = style.objectPosition.split(' ').map((part) => parseFloat(part) / 100)
    const source = image.parentElement?.querySelector('source')
    const over = around.localName === 'picture' ? this.#view.getComputedStyle(around, '::after') : undefined
    const isOver = over !== undefined && over.content !== 'none' && over.content !== 'normal'
    return {
      source: sourceOf(image),
      natural: { width, height },
      fit: style.objectFit === 'cover' || style.objectFit === 'contain' ? style.objectFit : 'fill',
      position: { x, y },
      files: source ? this.#sourceOf(source).files : [],
      addresses: source ? this.#sourceOf(source).addresses : [],
      told: source ? this.#told(source) : width,
      ...(isOver ? { overlay: { image: over.backgroundImage, colour: over.backgroundColor } } : {}),
    }
  }

  /** The width that `sizes` gives at this width of the window (HTML standard, "parse a sizes attribute"). */
  #told(source: Element): number {
    const found = this.#sourceOf(source).sizes.find(
      ({ media }) => media === '' || this.#view.matchMedia(media).matches,
    )
    return found ? this.#probe(found.length).getBoundingClientRect().width : this.#view.innerWidth
  }

  #sourceOf(source: Element) {
    let known = this.#sources.get(source)
    if (!known) this.#sources.set(source, (known = readSource(source)))
    return known
  }

  #probe(length: string): HTMLElement {
    let probe = this.#probes.get(length)
    if (!probe?.isConnected) {
      probe = this.#document.createElement('i')
      probe.style.cssText = `position:fixed;left:0;top:0;height:0;visibility:hidden;width:${length}`
      this.#document.documentElement.append(probe)
      this.#probes.set(length, probe)
    }
    return probe
  }

  #target(element: Element, style: Style): MeasuredTarget {
    const around = element.parentElement
    const isInline = !style.isBlock && around !== null && hasWordsBeside(around, element)
    const name = element.getAttribute('aria-label') ?? element.textContent ?? ''
    return { isInline, name: cutShort(name.replace(/\s+/g, ' ').trim(), CALLED_BY) }
  }
}

interface Point {
  readonly x: number
  readonly y: number
}

function boxOf({ x, y, width, height }: Pick<DOMRect, 'x' | 'y' | 'width' | 'height'>, page: Point): Box {
  return { x: x + page.x, y: y + page.y, width, height }
}

function readStyle(style: CSSStyleDeclaration): Style {
  const { display, position, overflowX, overflowY, zIndex } = style
  const isHidden = (overflow: string) => overflow === 'hidden' || overflow === 'clip'
  const [x, y] = [isHidden(overflowX), isHidden(overflowY)]
  const isBlock = display !== 'inline' && display !== 'contents' && display !== 'none'
  return {
    isBlock,
    clips: x && y ? 'both' : x ? 'x' : y ? 'y' : 'none',
    isScrolled: overflowX === 'auto' || overflowX === 'scroll',
    isOutdented: parseFloat(style.marginLeft) < 0 || parseFloat(style.marginRight) < 0,
    isAbsolute: position === 'absolute' || position === 'fixed',
    isLifted: position !== 'static',
    layer: zIndex === 'auto' ? undefined : Number(zIndex),
    isOpaque: rgbaOf(style.backgroundColor)[3] === 1 && Number(style.opacity) === 1,
    wraps: (display.endsWith('flex') && style.flexWrap !== 'nowrap') || display.endsWith('grid'),
    inset: style.paddingLeft === '0px' && style.paddingRight === '0px' ? insetOf(style) : undefined,
    isBold: Number(style.fontWeight) >= 700,
    colour: rgbaOf(style.color),
  }
}

/** Between the edge of an element and its content. Paddings may follow the width; without one, only borders count. */
function insetOf(style: CSSStyleDeclaration) {
  return {
    left: parseFloat(style.paddingLeft) + parseFloat(style.borderLeftWidth),
    right: parseFloat(style.paddingRight) + parseFloat(style.borderRightWidth),
  }
}

/** Of what is folded only its title is laid out for anybody. */
function shownChildren(element: Element): Iterable<Element> {
  if (element.localName !== 'details' || element.hasAttribute('open')) return element.children
  return [...element.children].filter(({ localName }) => localName === 'summary')
}

function isTarget(element: Element): boolean {
  return element.matches('a[href],button,input:not([type=hidden]),select,textarea,summary,[tabindex="0"]')
}

function roleOf(element: Element): MeasuredText['role'] {
  if (element.closest('h1,h2,h3,h4,h5,h6')) return 'heading'
  if (element.closest('button,.button')) return 'button'
  return element.closest('td,th') ? 'cell' : 'running'
}

/** Whether words stand in it that none of the blocks in it lays out. */
function hasWords(element: Element, isBlock: (child: Element) => boolean): boolean {
  for (const child of element.childNodes) {
    if (child.nodeType === 3 && (child.nodeValue ?? '').trim() !== '') return true
    if (child.nodeType === 1 && !isBlock(child as Element) && hasWords(child as Element, isBlock)) return true
  }
  return false
}

function hasWordsBeside(around: Element, element: Element): boolean {
  return [...around.childNodes].some(
    (node) => node !== element && node.nodeType === 3 && (node.nodeValue ?? '').trim() !== '',
  )
}

/** Boxes on one line as one: those that share at least half of the lower one's height. */
function linesOf(boxes: readonly Box[]): readonly Box[] {
  const lines: Box[] = []
  for (const box of boxes) {
    const at = lines.findIndex((line) => {
      const both = Math.min(line.y + line.height, box.y + box.height) - Math.max(line.y, box.y)
      return both > Math.min(line.height, box.height) / 2
    })
    if (at < 0) lines.push(box)
    else lines[at] = around(lines[at]!, box)
  }
  return lines
}

function around(a: Box, b: Box): Box {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)]
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  }
}

/** The entries of a source list (HTML standard, "srcset attributes"), narrow to wide. */
function filesOf(source: Element): readonly { readonly address: string; readonly width: number }[] {
  return (source.getAttribute('srcset') ?? '')
    .split(/,\s+/)
    .flatMap((entry) => {
      const [, address, width] = /^(\S+)\s+(\d+)w$/.exec(entry.trim()) ?? []
      return address === undefined ? [] : [{ address, width: Number(width) }]
    })
    .sort((a, b) => a.width - b.width)
}

function readSource(source: Element) {
  const files = filesOf(source)
  return {
    files: files.map(({ width }) => width),
    addresses: files.map(({ address }) => address),
    sizes: sizesOf(source),
  }
}

/** The address of a picture's smallest file. */
export function sourceOf(image: HTMLImageElement): string {
  const sources = [...(image.parentElement?.querySelectorAll('source') ?? [])]
  return filesOf(sources.at(-1) ?? image)[0]?.address ?? image.getAttribute('src') ?? ''
}

/** The entries of `sizes`: each a condition, empty for the last one, and a length. */
function sizesOf(source: Element): readonly { readonly media: string; readonly length: string }[] {
  return (source.getAttribute('sizes') ?? '').split(/,(?![^(]*\))/).flatMap((entry) => {
    const [, media = '', length = ''] = /^\s*(\((?:[^()]|\([^()]*\))*\))?\s*(.*?)\s*$/.exec(entry) ?? []
    return length === '' ? [] : [{ media, length }]
  })
}
