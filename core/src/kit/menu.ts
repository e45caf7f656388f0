/**
 * The site's navigation with a form for small screens. The list is a popover (HTML standard, "The popover attribute"):
 * where there is room it is simply shown, and on a narrow screen a button opens it over the page; Escape and a press
 * outside close it. None of this needs a script.
 */
import type { SizedRule } from './css-rules.ts'
import { el, type Element } from './element.ts'
import type { NavigationEntry } from './site-context.ts'
import { typeStyle } from './token-css.ts'

interface MenuOptions {
  readonly className: string
  /** Unique on the page. */
  readonly id: string
  readonly label: string
  readonly depth: 1 | 2
}

export function menuElement(
  entries: readonly NavigationEntry[],
  { className, id, label, depth }: MenuOptions,
): Element {
  return el(
    'nav',
    { className: [className], ariaLabel: label },
    el('button', { type: 'button', popoverTarget: id }, 'Menu'),
    el('div', { id, popover: 'auto' }, listElement(entries, depth)),
  )
}

function listElement(entries: readonly NavigationEntry[], depth: number): Element | undefined {
  if (entries.length === 0) return undefined
  return el(
    'ul',
    {},
    entries.map((entry) =>
      el(
        'li',
        {},
        el('a', { href: entry.path, ...(entry.current ? { ariaCurrent: 'page' } : {}) }, entry.label),
        depth > 1 && listElement(entry.inside, depth - 1),
      ),
    ),
  )
}

/** Rules for a menu under this selector. */
export function menuRules(menu: string): SizedRule[] {
  return [
    { selector: menu, declarations: typeStyle('body') },
    { selector: `${menu}>button`, declarations: { display: 'none' } },
    {
      selector: `${menu}>div`,
      declarations: {
        display: 'block',
        position: 'static',
        width: 'auto',
        height: 'auto',
        margin: '0',
        padding: '0',
        border: '0',
        background: 'none',
        color: 'inherit',
        overflow: 'visible',
      },
    },
    {
      selector: `${menu} ul`,
      declarations: {
        display: 'flex',
        'flex-wrap': 'wrap',
        gap: '0 1.5rem',
        padding: '0',
        'list-style': 'none',
      },
    },
    { selector: `${menu} ul ul`, declarations: { 'flex-direction': 'column', 'font-size': '.9em' } },
    {
      selector: `${menu} a`,
      declarations: {
        display: 'block',
        'padding-block': '.3rem',
        color: 'var(--ink)',
        'text-decoration': 'none',
      },
    },
    {
      selector: `${menu} a:hover`,
      declarations: { 'text-decoration': 'underline', 'text-underline-offset': '.3em' },
    },
    {
      selector: `${menu} a[aria-current]`,
      declarations: { color: 'var(--accent)', 'box-shadow': '0 2px 0 -1px var(--accent)' },
    },
    {
      selector: `${menu}>button`,
      size: 'narrow',
      declarations: {
        display: 'block',
        font: 'inherit',
        'font-weight': '600',
        padding: '.5em 1em',
        border: '1px solid currentColor',
        'border-radius': 'var(--radius-s)',
        background: 'none',
        color: 'var(--ink)',
      },
    },
    {
      selector: `${menu}>button:focus-visible`,
      declarations: { outline: '2px solid currentColor', 'outline-offset': '2px' },
    },
    { selector: `${menu}>div:not(:popover-open)`, size: 'narrow', declarations: { display: 'none' } },
    {
      selector: `${menu}>div:popover-open`,
      size: 'narrow',
      declarations: {
        position: 'fixed',
        inset: '0 0 auto',
        width: '100%',
        padding: 'var(--space-m)',
        background: 'var(--paper)',
        'border-bottom': '1px solid var(--line)',
        'box-shadow': '0 12px 32px rgb(0 0 0/.2)',
      },
    },
    { selector: `${menu} ul`, size: 'narrow', declarations: { 'flex-direction': 'column' } },
    { selector: `${menu} ul ul`, size: 'narrow', declarations: { 'padding-left': '1.2em' } },
  ]
}
