import {
  Autocomplete,
  Dialog,
  Input,
  Menu,
  MenuItem,
  Modal,
  ModalOverlay,
  SearchField,
  useFilter,
} from 'react-aria-components'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { fieldBox, Keys } from '../ui/controls.tsx'
import { useSiteView } from './site-view.ts'
import { COMMAND_IDS, keysOf, useRunCommand, type CommandId } from './commands.ts'

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 50;
  display: grid;
  justify-items: center;
  align-items: start;
  padding-top: 14vh;
  background: rgb(25 33 30 / 35%);
`
const Panel = styled(Modal)`
  width: min(440px, calc(100vw - 48px));
  border-radius: 6px;
  background: var(--paper);
  color: var(--plain);
  box-shadow: 0 18px 60px rgb(0 0 0 / 35%);
`
const Body = styled(Dialog)`
  display: grid;
  gap: 8px;
  padding: 14px;
  outline: none;
`
const Box = styled(Input)`
  ${fieldBox}
  height: 34px;
`
const Scroller = styled.div`
  max-height: 46vh;
  overflow: auto;
`
const List = styled(Menu<CommandItem>)`
  outline: none;
`
const Item = styled(MenuItem)`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  min-height: 32px;
  padding: 0 10px;
  border-radius: 4px;
  outline: none;
  &[data-focused],
  &[data-hovered] {
    background: var(--accentTint);
    color: var(--accent);
  }
`

interface CommandItem {
  /** A command, or `page:` and the id of a page to go to. */
  readonly id: CommandId | `page:${string}`
  readonly title: string
  readonly keys: string
}

const ITEMS: readonly CommandItem[] = COMMAND_IDS.map((id) => ({ id, ...keysOf(id) }))

/** Every command with its keys, found by typing its name. */
export function CommandsDialog({ onClose }: { onClose: () => void }) {
  const run = useRunCommand()
  const navigate = useNavigate()
  const { pages } = useSiteView()
  const items = [
    ...ITEMS,
    ...pages.map((page): CommandItem => ({
      id: `page:${page.id}`,
      title: `Go to page ${page.title}`,
      keys: '',
    })),
  ]
  const { contains } = useFilter({ sensitivity: 'base' })
  return (
    <Veil isOpen isDismissable onOpenChange={(open) => !open && onClose()}>
      <Panel>
        <Body aria-label="All commands">
          <Autocomplete filter={contains}>
            <SearchField aria-label="Find a command" autoFocus>
              <Box placeholder="Find a command" />
            </SearchField>
            {/* Reached by Tab, so that it can be scrolled without a pointer; the arrow keys work from the field. */}
            <Scroller tabIndex={0} role="group" aria-label="Found commands">
              <List
                aria-label="Commands"
                items={items}
                onAction={(id) => {
                  onClose()
                  const chosen = String(id)
                  if (chosen.startsWith('page:')) void navigate(`/pages/${chosen.slice('page:'.length)}`)
                  else run(chosen as CommandId)
                }}
              >
                {({ id, title, keys }) => (
                  <Item id={id} textValue={title}>
                    {title} {keys !== '' && <Keys>{keys}</Keys>}
                  </Item>
                )}
              </List>
            </Scroller>
          </Autocomplete>
        </Body>
      </Panel>
    </Veil>
  )
}
