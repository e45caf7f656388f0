/** Keys pressed early, for a field that is not there yet: collected in order, and given on once it is. */
import { useEffect, useLayoutEffect, useRef, useState } from 'react'

/** Text that was typed, or another key by its name ("Enter"). */
export type EarlyInput = { readonly text: string } | { readonly key: string }

/** Keys that mean something to a field besides letters. */
const OTHER_KEYS = new Set(['Enter', 'Backspace', 'ArrowDown', 'ArrowUp'])
/** Selects all of a text, by its name among the keys. */
export const SELECT_ALL = 'Control+A'
/** Keys that move the caret in a text, and the one that selects it. */
export const CARET_KEYS: ReadonlySet<string> = new Set(['Home', 'End', 'ArrowLeft', 'ArrowRight', SELECT_ALL])
const NONE: ReadonlySet<string> = new Set()
/** Those who collect keys now, in the order in which they began: what is typed is for the field that was asked for last. */
const collectors: object[] = []

export interface EarlyKeys {
  /** Gives the collected keys in order, then those pressed meanwhile. Collects nothing more once none is left. */
  readonly give: (take: (input: EarlyInput) => void) => Promise<void>
  /** Returns what was collected, in order, and collects nothing more. */
  readonly end: () => readonly EarlyInput[]
  /** Collects nothing more, and forgets what was collected. */
  readonly drop: () => void
}

/**
 * Collects the keys pressed in these documents until they are given on or dropped. `onEscape` is called when they are no
 * longer wanted: for an Escape before the field is there, unless an Enter came first. Then there is more than the field to
 * leave, and Escape comes in its turn like every other key; another one right after it takes back all the same. `more` are
 * keys that mean something to this field besides.
 */
export function collectKeys(
  documents: readonly (Document | undefined)[],
  onEscape?: () => void,
  more = NONE,
): EarlyKeys {
  const early: string[] = []
  let isGiving = false
  const collect = (event: KeyboardEvent): void => {
    if (collectors.at(-1) !== early) return
    const key = earlyKey(event)
    if (!event.isTrusted || key === undefined) return
    const isEscape = key === 'Escape' && onEscape !== undefined
    if (key.length !== 1 && !OTHER_KEYS.has(key) && !more.has(key) && !isEscape) return
    event.preventDefault()
    event.stopImmediatePropagation()
    const isInTurn = isGiving || (early.includes('Enter') && early.at(-1) !== 'Escape')
    if (isEscape && !isInTurn) onEscape()
    else early.push(key)
  }
  collectors.push(early)
  for (const one of documents) one?.addEventListener('keydown', collect, true)
  const drop = (): void => {
    early.length = 0
    if (collectors.includes(early)) collectors.splice(collectors.indexOf(early), 1)
    for (const one of documents) one?.removeEventListener('keydown', collect, true)
  }
  const give: EarlyKeys['give'] = async (take) => {
    isGiving = true
    for (let next = shiftInput(early); next; next = shiftInput(early)) {
      // A key acts on what the letters before it brought to the screen.
      if ('key' in next) await nextTask()
      take(next)
      if ('key' in next) await nextTask()
    }
    drop()
  }
  const end: EarlyKeys['end'] = () => {
    const inputs: EarlyInput[] = []
    for (let next = shiftInput(early); next; next = shiftInput(early)) inputs.push(next)
    drop()
    return inputs
  }
  return { give, end, drop }
}

/** The name of a key that may mean something to a field; undefined for the keys of commands. */
function earlyKey({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): string | undefined {
  if (!ctrlKey && !metaKey && !altKey) return key
  return !altKey && key.toLowerCase() === 'a' ? SELECT_ALL : undefined
}

/** Takes the letters up to the next other key off the front, or that key. */
function shiftInput(keys: string[]): EarlyInput | undefined {
  const other = keys.findIndex((key) => key.length !== 1)
  const text = keys.splice(0, other < 0 ? keys.length : other).join('')
  if (text !== '') return { text }
  const key = keys.shift()
  return key === undefined ? undefined : { key }
}

async function nextTask(): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve))
}

/** Collects what is typed on the whole screen, the page in the canvas included. */
export function collectAllKeys(onEscape?: () => void): EarlyKeys {
  const frames = [...document.querySelectorAll('iframe')].map((frame) => frame.contentDocument ?? undefined)
  return collectKeys([document, ...frames], onEscape)
}

/**
 * Collects what is typed on the whole screen from now on, and types it into the field that has the focus once `isThere`.
 * `onEscape` is called when Escape is pressed before that.
 */
export function useEarlyKeys(isThere: boolean, onEscape: () => void): void {
  const early = useRef<EarlyKeys>(undefined)
  const isGiven = useRef(false)
  const [before] = useState(() => document.activeElement)
  const escape = useRef(onEscape)
  useLayoutEffect(() => void (escape.current = onEscape))
  useLayoutEffect(() => {
    early.current = collectAllKeys(() => escape.current())
    // What is being given on goes on to what comes after the field: an Enter among the keys may have closed it.
    return () => {
      if (!isGiven.current) early.current?.drop()
    }
  }, [])
  useEffect(() => {
    if (!isThere || !early.current || isGiven.current) return
    isGiven.current = true
    void giveToField(early.current, before)
  }, [isThere, before])
}

type TakeRest = (input: EarlyInput) => boolean

let takeRest: TakeRest | undefined

/**
 * Says who takes what was typed ahead after the Enter that closed a field, and answers whether it did; undefined when
 * nobody does any more.
 */
export function giveRestTo(take: TakeRest | undefined): void {
  takeRest = take
}

/** Five seconds: more than a slow machine takes to show a field. */
const LOOKS_FOR_FIELD = 500
const LOOK_EVERY_MS = 10

/** Types what was collected into the field that gets the focus. A dialog takes a moment to move it there from where it was `before`. */
export async function giveToField(early: EarlyKeys, before: Element | null): Promise<void> {
  for (let looks = 0; looks < LOOKS_FOR_FIELD; looks++) {
    const field = document.activeElement
    if (field !== before && field instanceof HTMLInputElement)
      return early.give((input) => {
        if (document.activeElement === field) typeInto(field, input)
        else if (!takeRest?.(input) && 'key' in input) press(focused(), input.key)
      })
    await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS))
  }
  early.drop()
}

function typeInto(field: HTMLInputElement, input: EarlyInput): void {
  // As the hand would: over what is selected, such as all that stood there before.
  const [from, to] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length]
  if ('text' in input) replaceText(field, [from, to], input.text)
  else if (input.key === 'Backspace') replaceText(field, [from === to ? Math.max(0, from - 1) : from, to], '')
  else press(field, input.key)
}

/** What has the focus, in the page of the canvas, too. */
function focused(): Element | null {
  const { activeElement } = document
  return activeElement instanceof HTMLIFrameElement
    ? (activeElement.contentDocument?.activeElement ?? null)
    : activeElement
}

export function press(target: Element | null, key: string): void {
  const about = { key, code: key, bubbles: true, cancelable: true }
  target?.dispatchEvent(new KeyboardEvent('keydown', about))
  target?.dispatchEvent(new KeyboardEvent('keyup', about))
}

function replaceText(field: HTMLInputElement, [from, to]: readonly [number, number], text: string): void {
  field.setRangeText(text, from, to, 'end')
  field.dispatchEvent(new InputEvent('input', { bubbles: true }))
}
