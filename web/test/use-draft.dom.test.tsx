/** A field outside the page's document: what is typed while a save of it is under way. */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { act, useLayoutEffect, useState } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import type { DraftField } from '../src/ui/drafts.ts'

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true })
jest.unstable_mockModule('../src/people/sign-in-gate.tsx', () => ({ useMe: () => ({ id: 'p' }) }))
const { useDraft } = await import('../src/ui/drafts.ts')

let root: Root
let field: DraftField
/** The saves that were not answered yet: what each sent, what it replaces, and the function that answers it. */
let sent: { readonly text: string; readonly base: string; readonly answer: (isTaken: boolean) => void }[]
/** What somebody else does. */
let setSaved: (next: string) => void

function Field() {
  const [saved, set] = useState('dome')
  const own = useDraft({
    name: 'alt',
    label: 'Alternative text',
    saved,
    save: (text, base) =>
      new Promise((resolve) =>
        sent.push({
          text,
          base,
          answer: (isTaken) => {
            if (isTaken) set(text.trim())
            resolve(isTaken)
          },
        }),
      ),
  })
  useLayoutEffect(() => {
    field = own
    setSaved = set
  }, [own])
  return null
}

beforeEach(() => {
  localStorage.clear()
  sent = []
  root = createRoot(document.createElement('div'))
  act(() => root.render(<Field />))
})
afterEach(() => act(() => root.unmount()))

const type = (text: string): void => act(() => field.setText(text))
async function save(whileUnderWay: () => void, isTaken = true): Promise<void> {
  await act(async () => {
    const saving = field.save()
    whileUnderWay()
    sent.at(-1)!.answer(isTaken)
    await saving
  })
}

test('letters that come while a save is under way go on from what it saved, and nobody is said to have changed it', async () => {
  type('dome at ')
  await save(() => field.setText('dome at dusk'))
  expect([field.text, field.theirs, field.isChanged]).toEqual(['dome at dusk', undefined, true])
  await save(() => undefined)
  expect(sent.map(({ text, base }) => [text, base])).toEqual([
    ['dome at ', 'dome'],
    ['dome at dusk', 'dome at'],
  ])
  expect([field.text, field.isChanged]).toEqual(['dome at dusk', false])
})

test('a refused save leaves the draft as it is, and what somebody else saved meanwhile is told', async () => {
  type('dome at dusk')
  await save(() => undefined, false)
  act(() => setSaved('observatory'))
  expect([field.text, field.theirs]).toEqual(['dome at dusk', 'observatory'])
  act(() => field.accept())
  expect([field.text, field.theirs]).toEqual(['dome at dusk', undefined])
  act(() => field.reset())
  expect([field.text, field.isChanged]).toEqual(['observatory', false])
})

test('a save that is asked for while another is under way is of what was typed, over what that one saved', async () => {
  type('dome at ')
  await act(async () => {
    const first = field.save()
    field.setText('dome at dusk')
    const second = field.save()
    expect(sent).toHaveLength(1)
    sent[0]!.answer(true)
    await first
    await Promise.resolve()
    sent[1]!.answer(true)
    await second
  })
  expect(sent.map(({ text, base }) => [text, base])).toEqual([
    ['dome at ', 'dome'],
    ['dome at dusk', 'dome at'],
  ])
  expect([field.text, field.isChanged]).toEqual(['dome at dusk', false])
})
