/**
 * hast to HTML (HTML standard, 13.3 "Serializing HTML fragments"). The only place where strings of HTML are made.
 * hast-util-to-html does the same for any tree and is what the tests compare this with; here outlets split the string,
 * so that what a node gives is made once and only joined again when its children change.
 */
import { find, html as htmlNames } from 'property-information'
import { SLOT_TAG, type Element } from '../kit/element.ts'

/** An element as HTML, split at its outlets, and the names in it that a selector may ask for. */
export interface SerializedHtml {
  readonly pieces: readonly HtmlPiece[]
  /** Tags as they are, classes with a dot in front, each once. */
  readonly names: readonly string[]
}

/** A piece of HTML, or the slot whose children go between the pieces. */
export type HtmlPiece = string | { readonly slot: string }

/** HTML standard, 13.1.2 "Elements": void elements, which have no end tag. */
const VOID = new Set('area base br col embed hr img input link meta source track wbr'.split(' '))
/** Elements whose text is written as it is; ours hold stylesheets that our own renderer made. */
const RAW_TEXT = new Set(['style', 'script'])

/** An element as HTML, split at its outlets. */
export function serializeHtml(element: Element): SerializedHtml {
  const writer = new HtmlWriter()
  writer.element(element)
  return writer.finish()
}

/** An element without outlets as HTML. */
export function wholeHtml(element: Element): string {
  return serializeHtml(element)
    .pieces.map((piece) => (typeof piece === 'string' ? piece : ''))
    .join('')
}

class HtmlWriter {
  readonly #pieces: HtmlPiece[] = []
  readonly #names: string[] = []
  #text = ''

  element({ tagName, properties, children }: Element): void {
    if (tagName === SLOT_TAG) {
      this.#pieces.push(this.#text, { slot: String(properties.name) })
      this.#text = ''
      return
    }
    this.#name(tagName)
    const classes = properties.className as readonly string[] | undefined
    if (classes) for (const name of classes) this.#name(selectorOf(name))
    const text = attributes(properties)
    const { start, end } = tagsOf(tagName)
    this.#text += text === '' ? start : `<${tagName}${text}>`
    if (VOID.has(tagName)) return
    for (const child of children) {
      if (child.type === 'element') this.element(child)
      else if (child.type === 'text')
        this.#text += RAW_TEXT.has(tagName) ? child.value : escapeText(child.value)
    }
    this.#text += end
  }

  finish(): SerializedHtml {
    // Kept as long as the page is: neither holds room for more.
    const pieces = this.#pieces.length === 0 ? [this.#text] : [...this.#pieces, this.#text]
    return { pieces, names: this.#names.slice() }
  }

  #name(name: string): void {
    if (!this.#names.includes(name)) this.#names.push(name)
  }
}

const knownTags = new Map<string, { readonly start: string; readonly end: string }>()

/** Both tags of an element without attributes, made once: most elements have none. */
function tagsOf(tagName: string): { readonly start: string; readonly end: string } {
  let tags = knownTags.get(tagName)
  if (tags === undefined) knownTags.set(tagName, (tags = { start: `<${tagName}>`, end: `</${tagName}>` }))
  return tags
}

const knownSelectors = new Map<string, string>()
/** Classes are as many as arrangements ever made; those of a few large pages are worth keeping. */
const MOST_SELECTORS = 10_000

/** A class with its dot, the same string each time: a new one would be hashed anew wherever it is looked up. */
function selectorOf(className: string): string {
  let selector = knownSelectors.get(className)
  if (selector === undefined) {
    if (knownSelectors.size >= MOST_SELECTORS) knownSelectors.clear()
    knownSelectors.set(className, (selector = `.${className}`))
  }
  return selector
}

function attributes(properties: Element['properties']): string {
  let text = ''
  for (const key in properties) {
    const value = properties[key]
    if (value === undefined || value === null || value === false) continue
    text += ` ${attributeName(key)}`
    if (value === true) continue
    text += `="${escapeAttribute(Array.isArray(value) ? value.join(' ') : String(value))}"`
  }
  return text
}

const knownAttributes = new Map<string, string>()

function attributeName(property: string): string {
  let name = knownAttributes.get(property)
  if (name === undefined) knownAttributes.set(property, (name = find(htmlNames, property).attribute))
  return name
}

/** Escaping is rare and looking for it cheap, so most strings are given back as they are. */
function escapeText(value: string): string {
  return /[&<>\u00a0]/.test(value) ? value.replace(/[&<>\u00a0]/g, (one) => ESCAPED[one]!) : value
}

function escapeAttribute(value: string): string {
  return /[&<>"\u00a0]/.test(value) ? value.replace(/[&<>"\u00a0]/g, (one) => ESCAPED[one]!) : value
}

const ESCAPED: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  '\u00a0': '&nbsp;',
}
