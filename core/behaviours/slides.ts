/**
 * The bar of slides: on, back, where one is, and start or stop where the page offers that. Follows the ARIA Authoring
 * Practices, "Carousel Pattern": the buttons are plain ones before the slides, nothing moves until it is started, and it
 * stops as soon as the focus or the pointer is in it. Source: https://www.w3.org/WAI/ARIA/apg/patterns/carousel/ (written
 * from memory, without a copy at hand).
 */
const PAUSE_MS = 5000

for (const slides of document.querySelectorAll<HTMLElement>('.slides,.voices')) {
  const list = slides.querySelector<HTMLElement>(':scope > ul[tabindex]')
  const bar = slides.querySelector<HTMLElement>(':scope > .step-bar')
  if (list && bar) run(slides, list, bar)
}

function run(slides: HTMLElement, list: HTMLElement, bar: HTMLElement): void {
  slides.setAttribute('aria-roledescription', 'carousel')
  const still = window.matchMedia('(prefers-reduced-motion: reduce)')
  const count = list.children.length
  const step = (): number => {
    const [first, second] = list.children as unknown as [HTMLElement, HTMLElement]
    return second.offsetLeft - first.offsetLeft
  }
  // Where it is going while it still moves, so that two presses in a row go two steps.
  let target: number | undefined
  list.addEventListener('scrollend', () => {
    target = undefined
  })
  const go = (by: 1 | -1): void => {
    const end = list.scrollWidth - list.clientWidth
    const wanted = (target ?? list.scrollLeft) + by * step()
    const left = wanted > end + 1 ? 0 : wanted < -1 ? end : wanted
    target = left
    list.scrollTo({ left, behavior: still.matches ? 'auto' : 'smooth' })
  }
  const place = bar.querySelector<HTMLElement>('[data-place]')!
  const showPlace = (): void => {
    const seen = Math.max(1, Math.round(list.clientWidth / step()))
    const first = Math.min(count, Math.round(list.scrollLeft / step()) + 1)
    const last = Math.min(count, first + seen - 1)
    place.textContent = `${first === last ? first : `${first} to ${last}`} / ${count}`
  }
  list.addEventListener('scroll', showPlace, { passive: true })
  window.addEventListener('resize', showPlace)
  const play = bar.querySelector<HTMLElement>('[data-step=play]')
  let timer: ReturnType<typeof setInterval> | undefined
  const stop = (): void => {
    clearInterval(timer)
    timer = undefined
    if (play) play.textContent = 'Start'
    list.setAttribute('aria-live', 'polite')
  }
  const start = (): void => {
    timer = setInterval(() => go(1), PAUSE_MS)
    if (play) play.textContent = 'Stop'
    list.setAttribute('aria-live', 'off')
  }
  bar.querySelector('[data-step=back]')!.addEventListener('click', () => go(-1))
  bar.querySelector('[data-step=next]')!.addEventListener('click', () => go(1))
  play?.addEventListener('click', () => (timer === undefined ? start() : stop()))
  list.setAttribute('aria-live', 'polite')
  list.addEventListener('focusin', stop)
  list.addEventListener('pointerenter', stop)
  bar.hidden = false
  showPlace()
}
