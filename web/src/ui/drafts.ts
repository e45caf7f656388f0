/**
 * Text that was typed and is not saved yet, of fields outside the page's document: a picture's alternative text, a new
 * page's title, an address. Each draft is in the browser's storage from the first letter on, so that a reload or a
 * crash loses none; whoever leaves is asked, and "Save" saves them, too.
 */
import { useCallback, useEffect, useRef, useState } from 'react'
import { rememberedOf } from '../api/site-address.ts'
import { useValue, Value } from './value.ts'
import { useMe } from '../people/sign-in-gate.tsx'

type DraftStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>

/** One field with unsaved text. */
export interface Draft {
  readonly key: string
  /** What the field is called, for questions about it. */
  readonly label: string
  readonly text: string
  /** What was saved there when the typing began. */
  readonly base: string
  /** Saves it; false, or an error, when that was refused. Absent while its field is not on the screen. */
  readonly save?: () => Promise<boolean>
}

const PREFIX = 'gullyline.draft.'
const NONE: readonly Draft[] = []

export class Drafts {
  readonly #storage: DraftStorage
  /** All fields on the screen that have unsaved text, in the order in which they were begun. */
  readonly all = new Value<readonly Draft[]>(NONE)

  constructor(storage: DraftStorage) {
    this.#storage = storage
  }

  /** The text that was left unsaved under this key, and what it was typed over. */
  read(key: string): Pick<Draft, 'text' | 'base'> | undefined {
    try {
      const found = JSON.parse(this.#storage.getItem(PREFIX + key) ?? '') as Partial<Draft>
      return typeof found.text === 'string' && typeof found.base === 'string'
        ? { text: found.text, base: found.base }
        : undefined
    } catch {
      return undefined
    }
  }

  set(draft: Draft): void {
    const isKnown = this.all.get().some(({ key }) => key === draft.key)
    this.all.set(
      isKnown
        ? this.all.get().map((one) => (one.key === draft.key ? draft : one))
        : [...this.all.get(), draft],
    )
    try {
      this.#storage.setItem(PREFIX + draft.key, JSON.stringify({ text: draft.text, base: draft.base }))
    } catch {
      // The field still has it, and leaving asks.
    }
  }

  drop(key: string): void {
    this.#storage.removeItem(PREFIX + key)
    if (this.all.get().some((one) => one.key === key))
      this.all.set(this.all.get().filter((one) => one.key !== key))
  }

  /** Forgets that the field is on the screen; what was typed there stays in the storage. */
  leave(key: string): void {
    if (this.all.get().some((one) => one.key === key))
      this.all.set(this.all.get().filter((one) => one.key !== key))
  }

  dropAll(): void {
    for (const { key } of this.all.get()) this.#storage.removeItem(PREFIX + key)
    this.all.set(NONE)
  }

  /** Saves all that are on the screen. Gives the labels of those that were refused. */
  async saveAll(): Promise<readonly string[]> {
    const refused: string[] = []
    for (const { label, save } of this.all.get()) {
      const isSaved = save ? await save().catch(() => false) : false
      if (!isSaved) refused.push(label)
    }
    return refused
  }
}

/** The drafts of this tab. */
export const drafts = new Drafts(localStorage)

/** The fields on the screen that have unsaved text. */
export function useDrafts(): readonly Draft[] {
  return useValue(drafts.all)
}

interface DraftOptions {
  /** Names the field among all of this person's. */
  readonly name: string
  readonly label: string
  /** What is saved there now. */
  readonly saved: string
  /** Saves a text that was typed over `base`; false, or an error, when that was refused. */
  readonly save: (text: string, base: string) => Promise<boolean>
}

export interface DraftField {
  readonly text: string
  readonly setText: (text: string) => void
  readonly isChanged: boolean
  /** What is saved there by now, where that is neither what the typing began with nor what was typed. */
  readonly theirs: string | undefined
  /** Goes on from what is saved by now: the text stays, and saving it is meant to replace that. */
  readonly accept: () => void
  readonly save: () => Promise<boolean>
  /** Drops what was typed, and shows what is saved. */
  readonly reset: () => void
  /** Shows what is saved, where this text still stands: it went elsewhere, and what was typed since stays. */
  readonly taken: (text: string) => void
}

/** What saving goes by, whatever was rendered since. */
interface Latest {
  underWay: Promise<boolean> | undefined
  draft: Pick<Draft, 'text' | 'base'> | undefined
  save: DraftOptions['save']
}

/** A field whose text is a draft until it is saved. It is never replaced because data were read again. */
export function useDraft({ name, label, saved, save }: DraftOptions): DraftField {
  const key = `${useMe().id}.${rememberedOf}${name}`
  const [draft, setDraft] = useState(() => drafts.read(key))
  const text = draft?.text ?? saved
  const latest = useRef<Latest>({ save, draft, underWay: undefined })
  useEffect(() => {
    latest.current.save = save
  })
  // At once in both: an effect of a render from before would bring back what was there then.
  const put = useCallback((next: typeof draft) => {
    latest.current.draft = next
    setDraft(next)
  }, [])
  const drop = useCallback(() => {
    drafts.drop(key)
    put(undefined)
  }, [key, put])
  const saveOnce = useCallback(async (): Promise<boolean> => {
    const { draft: now, save: act } = latest.current
    if (!now) return true
    const isSaved = await act(now.text, now.base)
    if (!isSaved) return false
    const typed = latest.current.draft
    if (typed?.text === now.text) drop()
    // Letters came meanwhile: the draft goes on from what was saved, which no one else changed.
    else if (typed) put({ ...typed, base: now.text.trim() })
    return true
  }, [drop, put])
  /** One save after another: each is of what was typed over what the one before it saved. */
  const saveNow = useCallback((): Promise<boolean> => {
    const { underWay } = latest.current
    const next = underWay ? underWay.then(saveOnce, saveOnce) : saveOnce()
    latest.current.underWay = next
    const done = (): void => {
      if (latest.current.underWay === next) latest.current.underWay = undefined
    }
    next.then(done, done)
    return next
  }, [saveOnce])
  useEffect(() => {
    if (draft) drafts.set({ key, label, ...draft, save: saveNow })
  }, [key, label, draft, saveNow])
  useEffect(() => () => drafts.leave(key), [key])
  const setText = (next: string): void => {
    const base = draft?.base ?? saved
    if (next === base && base === saved) return drop()
    const typed = { text: next, base }
    put(typed)
    // At once, and not once it was drawn: the tab may die with the next frame.
    drafts.set({ key, label, ...typed, save: saveNow })
  }
  const isOvertaken = draft !== undefined && draft.base !== saved && draft.text !== saved
  return {
    text,
    setText,
    isChanged: draft !== undefined && draft.text !== saved,
    theirs: isOvertaken ? saved : undefined,
    accept: () => draft && put({ ...draft, base: saved }),
    save: saveNow,
    reset: drop,
    taken: (sent) => latest.current.draft?.text === sent && drop(),
  }
}
