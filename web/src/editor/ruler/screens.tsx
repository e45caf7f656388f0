import { Check, MonitorSmartphone } from 'lucide'
import { Menu, MenuTrigger, Separator } from 'react-aria-components'
import styled from 'styled-components'
import { SCREENS } from '@gullyline/core'
import { COMMANDS } from '../commands/command-list.ts'
import { useRunCommand } from '../commands/commands.ts'
import { MenuPop, MenuRow } from '../../ui/menu.tsx'
import { StripButton } from './strip-button.ts'
import { Icon } from '../../ui/icon.tsx'

/** The width of a screen once it is turned; undefined for widths that no screen of the list has. */
function rotatedWidth(width: number): number | undefined {
  const held = SCREENS.find((one) => one.width === width)
  if (held) return held.height
  return SCREENS.find((one) => one.height === width)?.width
}

/** How large the page is drawn: so that all of it has room, or each of its px as one. */
export type Zoom = 'fit' | 'whole'

const Opener = styled(StripButton)`
  left: 72px;
`
const Line = styled(Separator)`
  height: 1px;
  margin: 4px 0;
  background: var(--line);
`

interface ScreensProps {
  readonly width: number
  readonly onChange: (width: number) => void
  readonly zoom: Zoom
  readonly onZoom: (zoom: Zoom) => void
}

/** Shows the page at widths that many screens have, turned, and in its own size. */
export function Screens({ width, onChange, zoom, onZoom }: ScreensProps) {
  const rotated = rotatedWidth(width)
  const run = useRunCommand()
  const act = (key: string): void => {
    if (key === 'open-device') return run('open-device')
    if (key === 'rotate') {
      if (rotated !== undefined) onChange(rotated)
    } else if (key === 'fit' || key === 'whole') onZoom(key)
    else onChange(Number(key))
  }
  const tick = <Icon of={Check} size={14} strokeWidth={2} aria-hidden="true" />
  return (
    <MenuTrigger>
      <Opener aria-label="Screens" data-set={zoom === 'whole' ? '' : undefined}>
        <Icon of={MonitorSmartphone} size={14} strokeWidth={1.75} />
        {zoom === 'whole' && '100 %'}
      </Opener>
      <MenuPop placement="bottom start">
        <Menu
          aria-label="Screens"
          onAction={(key) => act(String(key))}
          disabledKeys={rotated === undefined ? ['rotate'] : []}
        >
          {SCREENS.map((screen) => (
            <MenuRow key={screen.width} id={String(screen.width)} textValue={screen.title}>
              {screen.title}, {screen.width} px {screen.width === width && tick}
            </MenuRow>
          ))}
          <Line />
          <MenuRow id="rotate" textValue="Rotate">
            Rotate{rotated === undefined ? '' : `: ${rotated} px`}
          </MenuRow>
          <Line />
          <MenuRow id="fit" textValue="Zoom to fit">
            Zoom to fit {zoom === 'fit' && tick}
          </MenuRow>
          <MenuRow id="whole" textValue="Zoom to 100 %">
            Zoom to 100 % {zoom === 'whole' && tick}
          </MenuRow>
          <Line />
          <MenuRow id="open-device" textValue={COMMANDS['open-device'].title}>
            {COMMANDS['open-device'].title}
          </MenuRow>
        </Menu>
      </MenuPop>
    </MenuTrigger>
  )
}
