/** Files on their way to the library: in turn, with their progress, cancelled, refused, and sent again. */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { act, createElement, useEffect } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import { onSignedOut } from '../src/api/client.ts'
import { openSite } from '../src/api/site-address.ts'
import {
  dropUpload,
  filesOf,
  sendAgain,
  startUploads,
  useUploads,
  type Upload,
} from '../src/media/uploads.ts'

/** What the browser would send, to be answered by the test. */
class Sent {
  static all: Sent[] = []
  static get open(): Sent[] {
    return Sent.all.filter((one) => !one.isOver)
  }
  status = 0
  response: unknown = null
  responseType = ''
  isOver = false
  path = ''
  readonly upload: { onprogress?: (event: { loaded: number; total: number }) => void } = {}
  onload?: () => void
  onerror?: () => void
  onabort?: () => void
  open(_method: string, path: string): void {
    this.path = path
  }
  setRequestHeader(): void {
    return undefined
  }
  send(): void {
    Sent.all.push(this)
  }
  abort(): void {
    this.isOver = true
    this.onabort?.()
  }
  async answer(status: number, response: unknown): Promise<void> {
    this.isOver = true
    Object.assign(this, { status, response })
    await act(async () => {
      this.onload?.()
      await Promise.resolve()
    })
  }
}

let shown: readonly Upload[] = []
let root: Root
function Screen() {
  const uploads = useUploads()
  useEffect(() => {
    shown = uploads
  })
  return null
}
const file = (name: string) => new File(['x'], name)
const start = (...names: string[]): void => act(() => void startUploads('pictures', names.map(file)))
const states = () => shown.map(({ name, state }) => `${name}: ${state.type}`)

beforeEach(() => {
  openSite('tarrowmoor')
  Sent.all = []
  Object.assign(globalThis, { XMLHttpRequest: Sent, IS_REACT_ACT_ENVIRONMENT: true })
  root = createRoot(document.createElement('div'))
  act(() => root.render(createElement(Screen)))
})
afterEach(() => {
  for (const { id } of shown) act(() => dropUpload(id))
  act(() => root.unmount())
})

test('two are sent at a time, and the next one as soon as one is done', async () => {
  start('a.jpg', 'b.jpg', 'c.jpg')
  expect(states()).toEqual(['a.jpg: sending', 'b.jpg: sending', 'c.jpg: waiting'])
  expect(Sent.all.map(({ path }) => path)).toEqual([
    '/api/sites/tarrowmoor/media?name=a.jpg',
    '/api/sites/tarrowmoor/media?name=b.jpg',
  ])
  act(() => Sent.all[0]!.upload.onprogress?.({ loaded: 1, total: 4 }))
  expect(shown[0]!.state).toEqual({ type: 'sending', share: 0.25 })
  await Sent.all[0]!.answer(201, { id: 'p1', fallback: '/x' })
  expect(states()).toEqual(['a.jpg: done', 'b.jpg: sending', 'c.jpg: sending'])
})

test('one that is cancelled makes room for the next, whether it was sent already or not', () => {
  start('a.jpg', 'b.jpg', 'c.jpg', 'd.jpg')
  act(() => dropUpload(shown[2]!.id))
  expect(states()).toEqual(['a.jpg: sending', 'b.jpg: sending', 'd.jpg: waiting'])
  act(() => dropUpload(shown[0]!.id))
  expect(states()).toEqual(['b.jpg: sending', 'd.jpg: sending'])
  expect(Sent.open.length).toBe(2)
})

test('a refusal is told in the server’s words; only what may be taken another time can be sent again', async () => {
  start('a.jpg', 'b.jpg')
  await Sent.all[0]!.answer(422, {
    code: 'not-valid',
    message: 'It is empty. It was not added.',
    problems: [],
  })
  expect(shown[0]!.state).toEqual({
    type: 'refused',
    message: 'It is empty. It was not added.',
    isFinal: true,
  })
  await act(async () => {
    Sent.all[1]!.isOver = true
    Sent.all[1]!.onerror?.()
    await Promise.resolve()
  })
  expect(shown[1]!.state).toMatchObject({ type: 'refused', isFinal: false })
  act(() => sendAgain(shown[1]!.id))
  expect(states()).toEqual(['a.jpg: refused', 'b.jpg: sending'])
  await Sent.open[0]!.answer(201, { id: 'p2', fallback: '/x' })
  expect(states()).toEqual(['a.jpg: refused', 'b.jpg: done'])
})

test('a session that has ended is asked for, and what was answered with no sense is told', async () => {
  let asked = 0
  onSignedOut(() => asked++)
  start('a.jpg', 'b.jpg')
  await Sent.all[0]!.answer(401, { code: 'not-signed-in', message: 'You are not signed in.', problems: [] })
  expect(asked).toBe(1)
  expect(shown[0]!.state).toMatchObject({ type: 'refused', isFinal: false })
  await Sent.all[1]!.answer(502, null)
  expect(shown[1]!.state).toMatchObject({
    type: 'refused',
    message: expect.stringMatching(/could not be read/),
  })
})

test('files go to their own part of the library, and what is pasted without a name gets one', () => {
  act(() => void startUploads('files', [file('plan.pdf')]))
  act(() => void startUploads('pictures', [file('')]))
  expect(shown.map(({ to, name }) => [to, name])).toEqual([
    ['files', 'plan.pdf'],
    ['pictures', 'Pasted picture'],
  ])
  expect(Sent.all.map(({ path }) => path)).toEqual([
    '/api/sites/tarrowmoor/files?name=plan.pdf',
    '/api/sites/tarrowmoor/media?name=Pasted%20picture',
  ])
  expect(filesOf(null)).toEqual([])
})
