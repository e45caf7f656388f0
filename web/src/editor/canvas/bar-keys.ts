/** The keys that lead from a text to its bar and to the link in it. The bar may come after they were pressed. */
import type { Editor } from '@tiptap/core'
import { collectAllKeys, type EarlyKeys } from '../../ui/early-keys.ts'
import { useValue, Value } from '../../ui/value.ts'
import { keyName } from '../commands/commands.ts'
import { atSelectionOnScreen } from './text-selection.ts'

/** Common practice, no source: many programs that write text have it. */
export const LINK_KEY = 'Ctrl+K'
/** Common practice, no source: it leads from a text to the bar over it. */
export const BAR_KEY = 'Alt+F10'

/** What a key asked the bar for, and what was typed since. */
export interface BarWish {
  readonly what: 'link' | 'bar'
  readonly early: EarlyKeys
  /** What had the focus. */
  readonly before: Element | null
}

const wish = new Value<BarWish | undefined>(undefined)

/** Hears the keys in a text editor for as long as its element lives. */
export function listenForBar(editor: Editor): void {
  editor.view.dom.addEventListener('keydown', (event) => {
    const name = keyName(event)
    if (name !== LINK_KEY && name !== BAR_KEY) return
    event.preventDefault()
    event.stopPropagation()
    // What a key has just selected is what the link is for, though the text editor was not told of it yet.
    const selected = atSelectionOnScreen(editor.view)
    if (selected.selectionSet) editor.view.dispatch(selected)
    dropWish()
    const early = collectAllKeys(() => {
      early.drop()
      wish.set(undefined)
    })
    wish.set({ what: name === LINK_KEY ? 'link' : 'bar', early, before: document.activeElement })
  })
}

/** What is wished for and not taken up yet. */
export function useBarWish(): BarWish | undefined {
  return useValue(wish)
}

/** To be called by who takes it up, and who has its keys from then on. */
export function takeWish(): void {
  wish.set(undefined)
}

/** To be called when nobody can take it up any more. */
export function dropWish(): void {
  wish.get()?.early.drop()
  wish.set(undefined)
}
