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
} from 'lucide'
import { useEffect, useEffectEvent, useRef, useState, type RefObject } from 'react'
import { Button, Dialog, DialogTrigger, Popover, Toolbar } from 'react-aria-components'
import styled from 'styled-components'
import type { ChainedCommands, Editor } from '@tiptap/core'
import { MARKS, type Link } from '@gullyline/core'
import { giveToField } from '../../ui/early-keys.ts'
import { useRunCommand } from '../commands/commands.ts'
import { LinkField } from '../details/link-field.tsx'
import { useActiveEditor, useReading } from './active-editor.ts'
import { BAR_KEY, LINK_KEY, takeWish, useBarWish, type BarWish } from './bar-keys.ts'
import { Icon } from '../../ui/icon.tsx'

/**
 * Above the page, where it covers no text, over the block that is typed in. As wide as the canvas: the room before the
 * bar shrinks where there is too little after it.
 */
const Line = styled.div`
  position: absolute;
  left: 4px;
  right: 4px;
  top: 4px;
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

const icon = { size: 16, strokeWidth: 1.75 } as const

/** Bold, italic, link and lists for the words being typed. A heading has no lists, and plain words have no bar. */
export function TextBar({ left }: { left: number }) {
  const editor = useActiveEditor()
  useReading(editor, looksAtCaret)
  const run = useRunCommand()
  const [linking, setLinking] = useState(false)
  const bar = useRef<HTMLDivElement>(null)
  useBarKeys(editor, bar, () => setLinking(true))
  if (!editor || !hasLooks(editor)) return null
  const link = (editor.getAttributes('link').to as Link | null | undefined) ?? undefined
  const isLine = !('paragraph' in editor.schema.nodes)
  const toggles = [
    {
      label: 'Bold',
      keys: 'Ctrl+B',
      sign: Bold,
      pressed: editor.isActive('bold'),
      run: () => focusedChain(editor).toggleBold().run(),
    },
    {
      label: 'Italic',
      keys: 'Ctrl+I',
      sign: Italic,
      pressed: editor.isActive('italic'),
      run: () => focusedChain(editor).toggleItalic().run(),
    },
    {
      label: 'Strikethrough',
      keys: 'Ctrl+Shift+S',
      sign: Strikethrough,
      pressed: editor.isActive('strike'),
      run: () => focusedChain(editor).toggleStrike().run(),
    },
    {
      label: 'Subscript',
      keys: undefined,
      sign: Subscript,
      pressed: editor.isActive('subscript'),
      run: () => focusedChain(editor).toggleMark('subscript').run(),
    },
    {
      label: 'Superscript',
      keys: undefined,
      sign: Superscript,
      pressed: editor.isActive('superscript'),
      run: () => focusedChain(editor).toggleMark('superscript').run(),
    },
    {
      label: 'Code',
      keys: 'Ctrl+E',
      sign: Code,
      pressed: editor.isActive('code'),
      run: () => focusedChain(editor).toggleCode().run(),
    },
    ...(isLine ? [] : paragraphToggles(editor)),
  ]
  const openLink = (isOpen: boolean): void => {
    setLinking(isOpen)
    if (!isOpen) editor.view.focus()
  }
  const setLink = (to: Link | undefined, isTyped = false): void => {
    // Without taking the focus: it stays in the field where the address is being typed.
    const chain = editor.chain().extendMarkRange('link')
    if (to) chain.setMark('link', { to }).run()
    else chain.unsetMark('link').run()
    if (isTyped) return
    // What was chosen is whole: typing goes on after it.
    editor.commands.setTextSelection(editor.state.selection.to)
    openLink(false)
  }
  const colours = [
    { name: 'accent', label: 'Accent colour' },
    { name: 'quiet', label: 'Muted colour' },
  ]
  return (
    <Line style={{ '--x': `${Math.max(0, left - 4)}px` }}>
      <Bar ref={bar} aria-label="Text formatting" aria-keyshortcuts={BAR_KEY}>
        {toggles.map(({ label, keys, sign, pressed, run }) => (
          <Toggle
            key={label}
            aria-label={label}
            aria-pressed={pressed}
            aria-keyshortcuts={keys}
            onPress={run}
            preventFocusOnPress
          >
            <Icon of={sign} {...icon} />
          </Toggle>
        ))}
        {colours.map(({ name, label }) => (
          <Toggle
            key={name}
            aria-label={label}
            aria-pressed={editor.isActive(name)}
            onPress={() => focusedChain(editor).toggleMark(name).run()}
            preventFocusOnPress
          >
            <Icon of={Baseline} {...icon} stroke={name === 'accent' ? 'var(--clay)' : 'var(--control)'} />
          </Toggle>
        ))}
        {!isLine && (
          <>
            <Toggle
              aria-label="Turn into heading"
              aria-keyshortcuts="Alt+1"
              onPress={() => run('to-heading')}
            >
              <Icon of={Heading} {...icon} />
            </Toggle>
            <Toggle aria-label="Turn into quote" aria-keyshortcuts="Alt+9" onPress={() => run('to-quote')}>
              <Icon of={Quote} {...icon} />
            </Toggle>
          </>
        )}
        <Toggle
          aria-label="Clear formatting"
          onPress={() => focusedChain(editor).unsetAllMarks().run()}
          preventFocusOnPress
        >
          <Icon of={RemoveFormatting} {...icon} />
        </Toggle>
        <DialogTrigger isOpen={linking} onOpenChange={openLink}>
          <Toggle
            aria-label="Link"
            aria-keyshortcuts={LINK_KEY}
            aria-pressed={link !== undefined}
            preventFocusOnPress
          >
            <Icon of={Link2} {...icon} />
          </Toggle>
          <LinkPop placement="bottom start">
            <Dialog aria-label="Link">
              <LinkField label="Link" autoFocus value={link} onChange={setLink} />
            </Dialog>
          </LinkPop>
        </DialogTrigger>
      </Bar>
    </Line>
  )
}

/** What the buttons of the bar show of where the caret is. */
function looksAtCaret(editor: Editor): string {
  const pressed = [...MARKS, 'bulletList', 'orderedList'].map((name) => Number(editor.isActive(name)))
  return pressed.join('') + JSON.stringify(editor.getAttributes('link').to ?? null)
}

/**
 * Commands to the text, which has the focus from now on: the chain's own `focus` gives it only with the next frame, and
 * keys pressed before that would be lost.
 */
function focusedChain(editor: Editor): ChainedCommands {
  editor.view.focus()
  return editor.chain()
}

function hasLooks(editor: Editor): boolean {
  return 'bold' in editor.schema.marks
}

/** Does what a key in the text asked the bar for, and leads back to the text by Escape. */
function useBarKeys(
  editor: Editor | undefined,
  bar: RefObject<HTMLElement | null>,
  onLink: () => void,
): void {
  const wish = useBarWish()
  const takeUp = useEffectEvent(({ what, early, before }: BarWish): void => {
    takeWish()
    if (what === 'link') {
      onLink()
      void giveToField(early, before)
    } else {
      early.drop()
      bar.current?.querySelector('button')?.focus()
    }
  })
  useEffect(() => {
    if (wish && editor && hasLooks(editor)) takeUp(wish)
  }, [wish, editor])
  const goBack = useEffectEvent((event: KeyboardEvent): void => {
    if (event.key === 'Escape') editor?.view.focus()
  })
  useEffect(() => {
    const buttons = bar.current
    const onBarKey = (event: KeyboardEvent): void => goBack(event)
    buttons?.addEventListener('keydown', onBarKey)
    return () => buttons?.removeEventListener('keydown', onBarKey)
  }, [editor, bar])
}

/** What makes something of a whole paragraph. */
function paragraphToggles(editor: Editor) {
  return [
    {
      label: 'List',
      keys: undefined,
      sign: List,
      pressed: editor.isActive('bulletList'),
      run: () => focusedChain(editor).toggleBulletList().run(),
    },
    {
      label: 'Numbered list',
      keys: undefined,
      sign: ListOrdered,
      pressed: editor.isActive('orderedList'),
      run: () => focusedChain(editor).toggleOrderedList().run(),
    },
  ]
}
