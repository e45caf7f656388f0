/** A tab in which whatever is put off comes late, as on a slow machine: keys pressed meanwhile come first. */
import type { Page } from '@playwright/test'

interface WithOnTime extends Window {
  onTime?: () => void
}

/** Puts off all that the page itself puts off, by so many ms more. Returns how to end it. */
export async function beLate(page: Page, ms: number): Promise<() => Promise<void>> {
  await page.evaluate((more) => {
    const later = window.setTimeout.bind(window)
    const nextFrame = window.requestAnimationFrame.bind(window)
    const cancelFrame = window.cancelAnimationFrame.bind(window)
    type Post = (this: MessagePort, message: unknown, options?: StructuredSerializeOptions) => void
    const post: Post = Reflect.get(MessagePort.prototype, 'postMessage')
    const frames = new Map<number, number>()
    window.setTimeout = ((work: () => void, pause = 0) => later(work, pause + more)) as typeof later
    window.requestAnimationFrame = (work) => {
      const id: number = later(() => frames.set(id, nextFrame(work)), more)
      return id
    }
    window.cancelAnimationFrame = (id) => {
      clearTimeout(id)
      cancelFrame(frames.get(id) ?? id)
    }
    // React puts its work off by messages to itself.
    const postLater: Post = function (message, options) {
      later(() => post.call(this, message, options), more)
    }
    Reflect.set(MessagePort.prototype, 'postMessage', postLater)
    ;(window as WithOnTime).onTime = () => {
      window.setTimeout = later
      window.requestAnimationFrame = nextFrame
      window.cancelAnimationFrame = cancelFrame
      Reflect.set(MessagePort.prototype, 'postMessage', post)
    }
  }, ms)
  return () => page.evaluate(() => (window as WithOnTime).onTime?.())
}
