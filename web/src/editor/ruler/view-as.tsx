import { Check, Eye } from 'lucide'
import { Menu, MenuTrigger } from 'react-aria-components'
import styled from 'styled-components'
import { SETTING_CSS } from '@gullyline/core'
import { MenuPop, MenuRow } from '../../ui/menu.tsx'
import { StripButton } from './strip-button.ts'
import { counted } from '../../ui/counted.ts'
import { Icon } from '../../ui/icon.tsx'

/** How a visitor may have set their browser. */
export type VisitorView = keyof typeof VIEWS

/** What browsers do where a person has chosen the colours (CSS Color Adjustment 1, "Forced Color Palettes"), with a palette of high contrast. */
const FORCED_CSS = [
  '*,*::before,*::after{background-color:#000!important;color:#fff!important;border-color:#fff!important;box-shadow:none!important;text-shadow:none!important}',
  'picture::after{background-image:none!important;background-color:transparent!important}',
  'a[href],a[href] *{color:#ff0!important}',
  'button{border:1px solid #fff!important}',
].join('')

/** What browsers do that darken pages which have no dark colours of their own: all lightness is turned round, and pictures stay. */
const DARK_CSS =
  'html{--dark:invert(1) hue-rotate(180deg)}img,video,iframe{filter:invert(1) hue-rotate(180deg)!important}'
/** Views that work on the whole page at once, each by a variable of its own. */
const FILTER_CSS = 'html{filter:var(--dark,) var(--grey,)!important}'

const VIEWS = {
  large: { title: 'Text at 200 %', css: SETTING_CSS.resized },
  spaced: { title: 'More text spacing', css: SETTING_CSS.spaced },
  bare: {
    title: 'Pictures not loaded',
    css: 'img{visibility:hidden}picture::after{background:none!important}',
  },
  grey: { title: 'Without colours', css: 'html{--grey:grayscale(1)}' },
  dark: { title: 'Darkened by the browser', css: DARK_CSS },
  forced: { title: 'Forced colours', css: FORCED_CSS },
  print: {
    title: 'Printed without backgrounds',
    css: '*,*::before,*::after{background:none!important;box-shadow:none!important;text-shadow:none!important;color:#000!important;border-color:#000!important}',
  },
} as const satisfies Readonly<Record<string, { readonly title: string; readonly css: string }>>
const NAMES = Object.keys(VIEWS) as VisitorView[]

const Opener = styled(StripButton)`
  left: 4px;
`

/** The rules that show the page as visitors with these settings see it. */
export function viewCss(views: ReadonlySet<VisitorView>): string {
  const set = NAMES.filter((name) => views.has(name)).map((name) => VIEWS[name].css)
  return set.length === 0 ? '' : [...set, FILTER_CSS].join('')
}

interface ViewAsProps {
  readonly views: ReadonlySet<VisitorView>
  readonly onChange: (views: ReadonlySet<VisitorView>) => void
}

/** Shows the page as visitors see it who have set their browser in some way. */
export function ViewAs({ views, onChange }: ViewAsProps) {
  const set = NAMES.filter((name) => views.has(name))
    .map((name) => VIEWS[name].title)
    .join(', ')
  return (
    <MenuTrigger>
      <Opener
        data-set={views.size > 0 ? '' : undefined}
        aria-label={set === '' ? 'View as visitors' : `View as visitors: ${set}`}
      >
        <Icon of={Eye} size={14} strokeWidth={1.75} />
        {views.size === 0 ? 'View' : counted(views.size, 'view')}
      </Opener>
      <MenuPop placement="bottom start">
        <Menu
          aria-label="View as visitors"
          selectionMode="multiple"
          selectedKeys={views}
          onSelectionChange={(keys) =>
            onChange(new Set(NAMES.filter((name) => keys === 'all' || keys.has(name))))
          }
        >
          {NAMES.map((name) => (
            <MenuRow key={name} id={name} textValue={VIEWS[name].title}>
              {VIEWS[name].title}{' '}
              {views.has(name) && <Icon of={Check} size={14} strokeWidth={2} aria-hidden="true" />}
            </MenuRow>
          ))}
        </Menu>
      </MenuPop>
    </MenuTrigger>
  )
}
