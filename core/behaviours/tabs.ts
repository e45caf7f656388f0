/**
 * Makes tabs of panels. Follows the ARIA Authoring Practices, "Tabs Pattern" with automatic activation: one tab is in
 * the order of the Tab key; arrow keys, Home and End go from tab to tab and show its panel.
 * Source: https://www.w3.org/WAI/ARIA/apg/patterns/tabs/ (written from memory, without a copy at hand).
 */
let count = 0

for (const panels of document.querySelectorAll<HTMLElement>('.panels-tabs')) makeTabs(panels)

function makeTabs(panels: HTMLElement): void {
  const parts = [...panels.querySelectorAll<HTMLDetailsElement>(':scope > .panel')]
  if (parts.length === 0) return
  const isDown = getComputedStyle(panels).display === 'grid'
  const list = document.createElement('div')
  list.className = 'tab-list'
  list.setAttribute('role', 'tablist')
  if (isDown) list.setAttribute('aria-orientation', 'vertical')
  const pairs = parts.map((part) => {
    const id = `tab-${++count}`
    const tab = document.createElement('button')
    tab.type = 'button'
    tab.id = id
    tab.setAttribute('role', 'tab')
    tab.textContent = part.querySelector('summary')?.textContent ?? ''
    const body = part.querySelector<HTMLElement>(':scope > div') ?? document.createElement('div')
    body.id = `${id}-panel`
    body.setAttribute('role', 'tabpanel')
    body.setAttribute('aria-labelledby', id)
    tab.setAttribute('aria-controls', body.id)
    body.tabIndex = 0
    body.classList.add('tab-panel')
    const isFirst = part === parts[0]
    list.append(tab)
    part.replaceWith(body)
    return { tab, body, isOpen: isFirst }
  })
  panels.prepend(list)
  const show = (at: number, focus: boolean): void => {
    pairs.forEach(({ tab, body }, i) => {
      const isShown = i === at
      tab.setAttribute('aria-selected', String(isShown))
      tab.tabIndex = isShown ? 0 : -1
      body.hidden = !isShown
    })
    if (focus) pairs[at]?.tab.focus()
  }
  list.addEventListener('click', (event) => {
    const at = pairs.findIndex(({ tab }) => tab === event.target)
    if (at >= 0) show(at, false)
  })
  list.addEventListener('keydown', (event) => {
    const at = pairs.findIndex(({ tab }) => tab === event.target)
    const steps: Readonly<Record<string, number>> = isDown
      ? { ArrowDown: 1, ArrowUp: -1 }
      : { ArrowRight: 1, ArrowLeft: -1 }
    const step = steps[event.key]
    const next =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? pairs.length - 1
          : step === undefined
            ? undefined
            : (at + step + pairs.length) % pairs.length
    if (at < 0 || next === undefined) return
    event.preventDefault()
    show(next, true)
  })
  // A link from elsewhere may lead into a panel that is not the first.
  const linked = document.getElementById(decodeURIComponent(location.hash.slice(1)))
  const wanted = pairs.findIndex(({ body }) => body.contains(linked))
  show(Math.max(0, wanted), false)
}
