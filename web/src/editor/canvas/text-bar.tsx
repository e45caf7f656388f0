import {
  Baseline,
  Bold,
  Code,
  Heading,
  Italic,
  Link2,
  List,
  ListOrdered,
  Quote,
  RemoveFormatting,
  Strikethrough,
  Subscript,
  Superscript,
} from 'lucide-react'
import { useState } from 'react'
import { Button, Dialog, DialogTrigger, Popover, Toolbar } from 'react-aria-components'
import styled from 'styled-components'
import type { Link } from '@gullyline/core'
import { useRunCommand } from '../commands.ts'
import { LinkField } from '../details/link-field.tsx'
import { useActiveEditor } from './active-editor.ts'
import type { Box } from './boxes.ts'

/** As wide as the canvas: the room before the bar shrinks where there is too little after it. */
const Line = styled.div`
  position: absolute;
  left: 4px;
  right: 4px;
  top: var(--y);
  display: flex;
  pointer-events: none;
  &::before {
    content: '';
    flex: 0 1 var(--x);
  }
`

const Bar = styled(Toolbar)`
  flex: none;
  display: flex;
  pointer-events: auto;
  gap: 2px;
  padding: 3px;
  border-radius: 5px;
  background: var(--paper);
  box-shadow:
    0 0 0 1px var(--line),
    0 6px 18px rgb(25 33 30 / 25%);
`

const Toggle = styled(Button)`
  display: grid;
  place-items: center;
  width: 28px;
  height: 26px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--strong);
  &[data-hovered] {
    background: var(--panel);
  }
  &[aria-pressed='true'] {
    background: var(--accentTint);
    color: var(--accent);
  }
`

const LinkPop = styled(Popover)`
  width: 280px;
  padding: 14px;
  border-radius: 6px;
  background: var(--paper);
  color: var(--plain);
  box-shadow:
    0 0 0 1px var(--line),
    0 10px 30px rgb(25 33 30 / 30%);
`

const BAR_HEIGHT = 38
const icon = { size: 16, strokeWidth: 1.75 } as const

/** Bold, italic, link and lists for the words being typed. One-line words have none of them, and no bar. */
export function TextBar({ box }: { box: Box }) {
  const editor = useActiveEditor()
  const run = useRunCommand()
  const [linking, setLinking] = useState(false)
  if (!editor || !('bold' in editor.schema.marks)) return null
  const top = box.top > BAR_HEIGHT + 6 ? box.top - BAR_HEIGHT : box.top + box.height + 6
  const link = (editor.getAttributes('link').to as Link | null | undefined) ?? undefined
  const toggles = [
    {
      label: 'Bold',
      keys: 'Ctrl+B',
      Icon: Bold,
      pressed: editor.isActive('bold'),
      run: () => editor.chain().focus().toggleBold().run(),
    },
    {
      label: 'Italic',
      keys: 'Ctrl+I',
      Icon: Italic,
      pressed: editor.isActive('italic'),
      run: () => editor.chain().focus().toggleItalic().run(),
    },
    {
      label: 'Strikethrough',
      keys: 'Ctrl+Shift+S',
      Icon: Strikethrough,
      pressed: editor.isActive('strike'),
      run: () => editor.chain().focus().toggleStrike().run(),
    },
    {
      label: 'Subscript',
      keys: undefined,
      Icon: Subscript,
      pressed: editor.isActive('subscript'),
      run: () => editor.chain().focus().toggleMark('subscript').run(),
    },
    {
      label: 'Superscript',
      keys: undefined,
      Icon: Superscript,
      pressed: editor.isActive('superscript'),
      run: () => editor.chain().focus().toggleMark('superscript').run(),
    },
    {
      label: 'Code',
      keys: 'Ctrl+E',
      Icon: Code,
      pressed: editor.isActive('code'),
      run: () => editor.chain().focus().toggleCode().run(),
    },
    {
      label: 'List',
      keys: undefined,
      Icon: List,
      pressed: editor.isActive('bulletList'),
      run: () => editor.chain().focus().toggleBulletList().run(),
    },
    {
      label: 'Numbered list',
      keys: undefined,
      Icon: ListOrdered,
      pressed: editor.isActive('orderedList'),
      run: () => editor.chain().focus().toggleOrderedList().run(),
    },
  ]
  const setLink = (to: Link | undefined): void => {
    // Without taking the focus: it stays in the field where the address is being typed.
    const chain = editor.chain().extendMarkRange('link')
    if (to) chain.setMark('link', { to }).run()
    else chain.unsetMark('link').run()
  }
  const openLink = (isOpen: boolean): void => {
    setLinking(isOpen)
    if (!isOpen) editor.view.focus()
  }
  const colours = [
    { name: 'accent', label: 'Accent colour' },
    { name: 'quiet', label: 'Muted colour' },
  ]
  return (
    <Line style={{ '--x': `${Math.max(0, box.left - 4)}px`, '--y': `${top}px` }}>
      <Bar aria-label="Text formatting">
        {toggles.map(({ label, keys, Icon, pressed, run }) => (
          <Toggle
            key={label}
            aria-label={label}
            aria-pressed={pressed}
            aria-keyshortcuts={keys}
            onPress={run}
            preventFocusOnPress
          >
            <Icon {...icon} />
          </Toggle>
        ))}
        {colours.map(({ name, label }) => (
          <Toggle
            key={name}
            aria-label={label}
            aria-pressed={editor.isActive(name)}
            onPress={() => editor.chain().focus().toggleMark(name).run()}
            preventFocusOnPress
          >
            <Baseline {...icon} color={name === 'accent' ? 'var(--clay)' : 'var(--control)'} />
          </Toggle>
        ))}
        <Toggle aria-label="Turn into heading" aria-keyshortcuts="Alt+1" onPress={() => run('to-heading')}>
          <Heading {...icon} />
        </Toggle>
        <Toggle aria-label="Turn into quote" aria-keyshortcuts="Alt+9" onPress={() => run('to-quote')}>
          <Quote {...icon} />
        </Toggle>
        <Toggle
          aria-label="Clear formatting"
          onPress={() => editor.chain().focus().unsetAllMarks().run()}
          preventFocusOnPress
        >
          <RemoveFormatting {...icon} />
        </Toggle>
        <DialogTrigger isOpen={linking} onOpenChange={openLink}>
          <Toggle aria-label="Link" aria-pressed={link !== undefined} preventFocusOnPress>
            <Link2 {...icon} />
          </Toggle>
          <LinkPop placement="bottom start">
            <Dialog aria-label="Link">
              <LinkField label="Link" value={link} onChange={setLink} />
            </Dialog>
          </LinkPop>
        </DialogTrigger>
      </Bar>
    </Line>
  )
}
