/**
 * Runs in the simulated device: gives the page in it a screen of its own, and a finger. A press that moves scrolls what it is
 * on, as far as it was flung; one that stays taps; nothing hovers. What a page hears of it are the events that a finger gives
 * (Touch Events, 5; Media Queries 4, 6: "any hover, coarse pointer"). It moves as for somebody who asked for less motion, where
 * that is chosen (Media Queries 5, "prefers-reduced-motion").
 */

/** A finger that moves no further than this, in px, taps (common practice, no source). */
const TAP_PX = 8
/** What is left of a fling's speed after each ms (common practice, no source). */
const SLOWING = 0.996
/** Slower than this, in px per ms, nothing moves. */
const STILL = 0.03

interface Point {
  readonly x: number
  readonly y: number
}

const frame = document.querySelector<HTMLIFrameElement>('iframe')!
const glass = document.querySelector<HTMLElement>('[data-glass]')!
const screens = document.querySelector<HTMLSelectElement>('select')!
const turn = document.querySelector<HTMLButtonElement>('[data-turn]')!
const stillness = document.querySelector<HTMLButtonElement>('[data-still]')!
const size = document.querySelector<HTMLOutputElement>('output')!
const finger = document.querySelector<HTMLElement>('[data-finger]')!
const room = document.querySelector<HTMLElement>('main')!

let isTurned = false
/** Around the device, in px; see the padding of `main` in device-window.ts. */
const MARGIN = 20

function layOut(): void {
  const [width = 390, height = 844] = screens.value.split('x').map(Number)
  const [w, h] = isTurned ? [height, width] : [width, height]
  const [across, down] = [room.clientWidth - 2 * MARGIN, room.clientHeight - 2 * MARGIN]
  const scale = Math.min(1, across / w, down / h)
  glass.style.width = `${w * scale}px`
  glass.style.height = `${h * scale}px`
  frame.style.width = `${w}px`
  frame.style.height = `${h}px`
  frame.style.transform = `scale(${scale})`
  size.value = `${w} × ${h} px${scale < 1 ? `, shown at ${Math.round(scale * 100)} %` : ''}`
}

screens.addEventListener('change', layOut)
turn.addEventListener('click', () => {
  isTurned = !isTurned
  turn.setAttribute('aria-pressed', String(isTurned))
  layOut()
})
new ResizeObserver(layOut).observe(room)
layOut()

const REDUCED = '(prefers-reduced-motion: reduce)'
const ABOUT_MOTION = /\(prefers-reduced-motion(?:: *(reduce|no-preference))?\)/g
/** Conditions that always and never hold. */
const [ALWAYS, NEVER] = ['(min-width: 0px)', '(max-width: 0px)']

/** Whether the page moves less. To begin with as the person’s own browser is set. */
let isStill = matchMedia(REDUCED).matches
/** The page’s rules that depend on it, with their condition as it is written. */
let motionRules: { readonly media: MediaList; readonly written: string }[] = []

stillness.addEventListener('click', () => {
  isStill = !isStill
  showMotion()
})
showMotion()

function showMotion(): void {
  stillness.setAttribute('aria-pressed', String(isStill))
  for (const { media, written } of motionRules)
    media.mediaText = written.replaceAll(ABOUT_MOTION, (_all, value: string | undefined) =>
      (value !== 'no-preference') === isStill ? ALWAYS : NEVER,
    )
}

frame.addEventListener('load', begin)
if (frame.contentDocument?.readyState === 'complete') begin()

function begin(): void {
  const inner = frame.contentDocument
  const view = frame.contentWindow
  if (!inner || !view || inner.documentElement.hasAttribute('data-touched')) return
  inner.documentElement.setAttribute('data-touched', '')
  motionRules = []
  for (const sheet of inner.styleSheets) {
    withoutHover(sheet)
    motionRules.push(...rulesOfMotion(sheet))
  }
  showMotion()
  tellScriptsOfMotion(view)
  const style = inner.createElement('style')
  style.textContent = '*{cursor:none!important;user-select:none}html{scrollbar-width:none}'
  inner.head.append(style)
  putFingerOn(inner, view)
}

/** Rules for what hovers and for a fine pointer are out of force, and those for a finger in force. */
function withoutHover({ cssRules }: { readonly cssRules: CSSRuleList }): void {
  for (const rule of cssRules) {
    if (rule instanceof frame.contentWindow!.window.CSSMediaRule) {
      const { media } = rule
      if (/\((any-)?hover:\s*hover\)|\((any-)?pointer:\s*fine\)/.test(media.mediaText))
        media.mediaText = 'not all'
      else
        media.mediaText = media.mediaText
          .replaceAll(/\((any-)?hover:\s*none\)|\((any-)?pointer:\s*coarse\)/g, '(min-width: 0)')
          .trim()
    }
    if (rule instanceof frame.contentWindow!.window.CSSStyleRule)
      rule.selectorText = rule.selectorText.replaceAll(':hover', ':not(*)')
    if ('cssRules' in rule) withoutHover(rule as CSSGroupingRule)
  }
}

function rulesOfMotion({ cssRules }: { readonly cssRules: CSSRuleList }): typeof motionRules {
  return [...cssRules].flatMap((rule) => {
    const inside = 'cssRules' in rule ? rulesOfMotion(rule as CSSGroupingRule) : []
    if (!(rule instanceof frame.contentWindow!.window.CSSMediaRule)) return inside
    const { media } = rule
    const written = media.mediaText
    return written.includes('prefers-reduced-motion') ? [{ media, written }, ...inside] : inside
  })
}

/** The page’s scripts ask what is preferred before each movement. */
function tellScriptsOfMotion(view: Window): void {
  const { MediaQueryList } = view as unknown as typeof globalThis
  const matches = Object.getOwnPropertyDescriptor(MediaQueryList.prototype, 'matches')!
  Object.defineProperty(MediaQueryList.prototype, 'matches', {
    ...matches,
    get(this: MediaQueryList): boolean {
      return this.media === REDUCED ? isStill : (matches.get!.call(this) as boolean)
    },
  })
}

function putFingerOn(inner: Document, view: Window): void {
  let at: Point | undefined
  let from: Point = { x: 0, y: 0 }
  let target: Element | undefined
  let scrolled: Element | undefined
  let speed: Point = { x: 0, y: 0 }
  let last = 0
  let flinging = 0

  const touch = (type: string, point: Point, isDown: boolean): boolean => {
    if (!target) return true
    const { Touch, TouchEvent } = view as unknown as typeof globalThis
    const one = new Touch({ identifier: 1, target, clientX: point.x, clientY: point.y })
    const touches = isDown ? [one] : []
    return target.dispatchEvent(
      new TouchEvent(type, {
        bubbles: true,
        cancelable: true,
        touches,
        targetTouches: touches,
        changedTouches: [one],
      }),
    )
  }
  const down = (event: PointerEvent): void => {
    if (event.button !== 0 || event.pointerType !== 'mouse') return
    cancelAnimationFrame(flinging)
    at = from = { x: event.clientX, y: event.clientY }
    target = event.target as Element
    scrolled = undefined
    speed = { x: 0, y: 0 }
    last = event.timeStamp
    finger.toggleAttribute('data-down', true)
    touch('touchstart', at, true)
  }
  const move = (event: PointerEvent): void => {
    showFinger(event)
    if (!at) return
    const next = { x: event.clientX, y: event.clientY }
    const by = { x: at.x - next.x, y: at.y - next.y }
    const isPan = Math.hypot(next.x - from.x, next.y - from.y) > TAP_PX
    if (!touch('touchmove', next, true)) {
      at = next
      return
    }
    if (isPan) {
      scrolled ??= scrollerOf(target!, Math.abs(next.x - from.x) > Math.abs(next.y - from.y))
      scrolled.scrollBy({ left: by.x, top: by.y, behavior: 'instant' })
      const ms = Math.max(1, event.timeStamp - last)
      speed = { x: by.x / ms, y: by.y / ms }
    }
    last = event.timeStamp
    at = next
  }
  const up = (event: PointerEvent): void => {
    if (!at) return
    const point = at
    at = undefined
    finger.toggleAttribute('data-down', false)
    touch('touchend', point, false)
    const moving = scrolled
    // Held still before it was lifted, a finger flings nothing.
    if (moving && event.timeStamp - last < 60) fling(moving, speed, performance.now())
    else if (!moving) focusable(target)?.focus()
  }
  const fling = (moving: Element, { x, y }: Point, then: number): void => {
    flinging = requestAnimationFrame((now) => {
      const ms = now - then
      moving.scrollBy({ left: x * ms, top: y * ms, behavior: 'instant' })
      const rest = SLOWING ** ms
      if (Math.hypot(x, y) * rest > STILL) fling(moving, { x: x * rest, y: y * rest }, now)
    })
  }
  const scrollerOf = (element: Element, isSideways: boolean): Element => {
    for (let one: Element | null = element; one; one = one.parentElement) {
      const { overflowX, overflowY } = view.getComputedStyle(one)
      const scrolls = (overflow: string) => overflow === 'auto' || overflow === 'scroll'
      if (isSideways && scrolls(overflowX) && one.scrollWidth > one.clientWidth) return one
      if (!isSideways && scrolls(overflowY) && one.scrollHeight > one.clientHeight) return one
    }
    return inner.scrollingElement ?? inner.documentElement
  }
  inner.addEventListener('pointerdown', down, true)
  inner.addEventListener('pointermove', move, true)
  inner.addEventListener('pointerup', up, true)
  inner.addEventListener('pointerleave', () => (finger.hidden = true))
  // Neither selected nor dragged nor focused by a press that may become a movement.
  for (const type of ['mousedown', 'dragstart', 'selectstart'])
    inner.addEventListener(
      type,
      (event) => {
        if (!(event.target as Element).closest?.('input,select,textarea')) event.preventDefault()
      },
      true,
    )
  inner.addEventListener(
    'click',
    (event) => {
      if (!scrolled) return
      event.preventDefault()
      event.stopImmediatePropagation()
      scrolled = undefined
    },
    true,
  )
}

function focusable(target: Element | undefined): HTMLElement | null | undefined {
  return target?.closest<HTMLElement>('a[href],button,input,select,textarea,summary,[tabindex]')
}

/** The finger is drawn where the pointer is, in the window around the page. */
function showFinger({ clientX, clientY }: PointerEvent): void {
  const { left, top, width } = frame.getBoundingClientRect()
  const scale = width / frame.offsetWidth
  finger.hidden = false
  finger.style.left = `${left + clientX * scale}px`
  finger.style.top = `${top + clientY * scale}px`
}
