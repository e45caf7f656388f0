import { useSyncExternalStore } from 'react'

/** A value outside of React that parts of the screen follow. */
export class Value<T> {
  readonly #listeners = new Set<() => void>()
  #now: T

  constructor(first: T) {
    this.#now = first
  }

  get = (): T => this.#now

  set = (next: T): void => {
    if (Object.is(next, this.#now)) return
    this.#now = next
    for (const listener of this.#listeners) listener()
  }

  /** Calls `listener` after every change; returns how to end that. */
  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }
}

/** The value as it is now; renders again when it changes. */
export function useValue<T>(value: Value<T>): T {
  return useSyncExternalStore(value.subscribe, value.get)
}
