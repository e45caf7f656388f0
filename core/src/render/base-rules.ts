import type { CssRule } from '../kit/css-rules.ts'
import { typeStyle } from '../kit/token-css.ts'

/** Rules that every page starts from. Those whose elements a page does not have are left out of its stylesheet. */
export const BASE_RULES: readonly Omit<CssRule, 'size'>[] = [
  { selector: '*,::before,::after', declarations: { 'box-sizing': 'border-box' } },
  { selector: 'body,h1,h2,h3,h4,h5,h6,p,ul,ol,figure', declarations: { margin: '0' } },
  {
    selector: 'html',
    declarations: {
      'text-size-adjust': '100%',
      '-webkit-text-size-adjust': '100%',
      'scroll-behavior': 'smooth',
    },
  },
  {
    selector: 'body',
    declarations: {
      ...typeStyle('body'),
      'min-height': '100vh',
      display: 'flex',
      'flex-direction': 'column',
      // A long word breaks wherever it has to, in flex and grid items as well: it never makes a page wider than the screen.
      'overflow-wrap': 'anywhere',
    },
  },
  { selector: 'main', declarations: { flex: '1' } },
  { selector: 'img', declarations: { display: 'block', 'max-width': '100%' } },
  {
    selector: 'a:focus-visible',
    declarations: { outline: '2px solid currentColor', 'outline-offset': '3px', 'border-radius': '2px' },
  },
  { selector: '.in-accent', declarations: { color: 'var(--accent)' } },
  { selector: '.in-quiet', declarations: { color: 'var(--quiet)' } },
  {
    selector: '.skip',
    declarations: {
      position: 'absolute',
      'z-index': '1',
      padding: '.6em 1em',
      background: 'var(--paper)',
      color: 'var(--link)',
      transform: 'translateY(-120%)',
    },
  },
  { selector: '.skip:focus', declarations: { transform: 'none' } },
]

/** For readers whose system asks for less motion (WCAG 2.2, technique C39). */
export const REDUCED_MOTION = '@media (prefers-reduced-motion:reduce){html{scroll-behavior:auto}}'
