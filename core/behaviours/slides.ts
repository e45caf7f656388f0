/**
 * Buttons for slides: on, back, and start or stop where the page offers that. Follows the ARIA Authoring Practices,
 * "Carousel Pattern": the buttons are plain ones before the slides, nothing moves until it is started, and it stops as
 * soon as the focus or the pointer is in it. Source: https://www.w3.org/WAI/ARIA/apg/patterns/carousel/ (written from
 * memory, without a copy at hand).
 */
const PAUSE_MS = 5000

for (const slides of document.querySelectorAll<HTMLElement>('.slides,.voices')) {
  const list = slides.querySelector<HTMLElement>(':scope > ul[tabindex]')
  if (list && list.children.length > 1) makeButtons(slides, list)
}

function makeButtons(slides: HTMLElement, list: HTMLElement): void {
  slides.setAttribute('aria-roledescription', 'carousel')
  const still = window.matchMedia('(prefers-reduced-motion: reduce)')
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
  const bar = document.createElement('div')
  const play =
    slides.dataset.play === undefined
      ? undefined
      : button('Start', () => (timer === undefined ? start() : stop()))
  if (play) bar.append(play)
  bar.append(
    button('Back', () => go(-1)),
    button('Next', () => go(1)),
  )
  slides.prepend(bar)
  list.setAttribute('aria-live', 'polite')
  list.addEventListener('focusin', stop)
  list.addEventListener('pointerenter', stop)
}

function button(words: string, act: () => void): HTMLButtonElement {
  const made = document.createElement('button')
  made.type = 'button'
  made.dataset.step = ''
  made.textContent = words
  made.addEventListener('click', act)
  return made
}
