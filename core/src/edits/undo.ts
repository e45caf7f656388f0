import type { Registry } from '../blocks/registry.ts'
import type { Page } from '../page/page.ts'
import type { Edit } from './edit-shapes.ts'
import { mergeEdits } from './edit.ts'
import { applyEdits, type Transaction } from './transaction.ts'

/**
 * Letters typed with a shorter pause than this are undone together. Chosen by us: about the pause between two words. The
 * times of typed transactions must leave out how long a slow machine could hear no key.
 */
const JOIN_WITHIN_MS = 800

/** One thing that can be undone: what was done, and the edits that take it back. */
export interface Step {
  readonly transaction: Transaction
  readonly inverse: readonly Edit[]
}

/** What was done, oldest first, and what was undone, next to redo last. A value: undoing gives a new one. */
export interface History {
  readonly done: readonly Step[]
  readonly undone: readonly Step[]
}

export const EMPTY_HISTORY: History = { done: [], undone: [] }

/** The most that a history holds, in characters of its edits as JSON: enough for days, and far from what a tab may take. */
const MOST_CHARACTERS = 32_000_000

/**
 * Adds what was just done. Whatever had been undone can no longer be redone. The oldest steps are dropped once the whole
 * is larger than `most` characters; the last one always stays.
 */
export function record(
  history: History,
  transaction: Transaction,
  inverse: readonly Edit[],
  most: number = MOST_CHARACTERS,
): History {
  const last = history.done.at(-1)
  if (last && history.undone.length === 0 && joins(last.transaction, transaction)) {
    const joined: Step = {
      transaction: { ...transaction, edits: mergeEdits([...last.transaction.edits, ...transaction.edits]) },
      inverse: mergeEdits([...inverse, ...last.inverse]),
    }
    return { done: bounded([...history.done.slice(0, -1), joined], most), undone: [] }
  }
  return { done: bounded([...history.done, { transaction, inverse }], most), undone: [] }
}

function bounded(steps: readonly Step[], most: number): readonly Step[] {
  let left = most
  const from = steps.findLastIndex((step) => (left -= sizeOf(step)) < 0)
  return from < 0 ? steps : steps.slice(Math.min(from + 1, steps.length - 1))
}

const sizes = new WeakMap<Step, number>()

function sizeOf(step: Step): number {
  let size = sizes.get(step)
  if (size === undefined) {
    size = JSON.stringify([step.transaction.edits, step.inverse]).length
    sizes.set(step, size)
  }
  return size
}

function joins(last: Transaction, next: Transaction): boolean {
  return last.joinKey !== undefined && last.joinKey === next.joinKey && next.at - last.at < JOIN_WITHIN_MS
}

export interface Undone {
  readonly page: Page
  readonly history: History
  readonly step: Step
}

/** Takes back the last step; undefined when there is none. */
export function undo(history: History, page: Page, registry: Registry): Undone | undefined {
  const step = history.done.at(-1)
  if (!step) return undefined
  const next = mustApply(page, step.inverse, registry)
  return { page: next, step, history: { done: history.done.slice(0, -1), undone: [...history.undone, step] } }
}

/** Does again what was last undone; undefined when there is nothing. */
export function redo(history: History, page: Page, registry: Registry): Undone | undefined {
  const step = history.undone.at(-1)
  if (!step) return undefined
  const next = mustApply(page, step.transaction.edits, registry)
  return { page: next, step, history: { done: [...history.done, step], undone: history.undone.slice(0, -1) } }
}

function mustApply(page: Page, edits: readonly Edit[], registry: Registry): Page {
  const result = applyEdits(page, edits, registry)
  if (!result.ok) throw new Error(`The history does not belong to this page: ${result.message}`)
  return result.page
}
