/** The frame that a page is shown in: a document of its own, there at once, that nothing carries away. */
import { MessageChannel } from 'node:worker_threads'
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { act, StrictMode, type ReactNode } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import { PageFrame } from '../src/editor/canvas/page-frame.tsx'
import { AfterFirst, FirstIsThereProvider, usePainted } from '../src/ui/after-first.tsx'

// Browsers have it, and this environment does not.
Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true, MessageChannel })

let root: Root
beforeEach(() => {
  document.body.innerHTML = '<div id="here"></div>'
  root = createRoot(document.getElementById('here')!)
})
afterEach(() => act(() => root.unmount()))

const draw = (screen: ReactNode): void => act(() => root.render(screen))
const frame = (): HTMLIFrameElement => document.querySelector('iframe')!

describe('a page in its frame', () => {
  const page = (onDocument?: (inner: Document) => void) => (
    <PageFrame
      title="The page"
      width={820}
      height={600}
      scale={0.5}
      head={<style>{'p { color: teal }'}</style>}
      isFocusHome
      {...(onDocument ? { onDocument } : {})}
    >
      <p>
        <a href="/elsewhere">Away</a>
      </p>
    </PageFrame>
  )

  test.each([
    ['as it is', page],
    [
      'where React does every effect twice',
      (told?: (inner: Document) => void) => <StrictMode>{page(told)}</StrictMode>,
    ],
  ])('%s, is there when the frame is, with its rules, in standards mode (HTML, 13.2.6.4.1)', (_how, make) => {
    const told: Document[] = []
    draw(make((inner) => told.push(inner)))
    const inner = frame().contentDocument!
    expect(inner.compatMode).toBe('CSS1Compat')
    expect(inner.body.querySelector('p')?.textContent).toBe('Away')
    expect(inner.head.textContent).toContain('teal')
    expect(new Set(told)).toEqual(new Set([inner]))
  })

  test('runs no scripts of the page, and takes the focus home', () => {
    draw(page())
    const policy = frame().contentDocument!.querySelector('meta[http-equiv="Content-Security-Policy"]')
    expect(policy?.getAttribute('content')).toBe("script-src 'none'")
    expect(frame().hasAttribute('data-takes-focus')).toBe(true)
  })

  test.each(['click', 'auxclick', 'submit'])('is not carried away by a %s', (type) => {
    draw(page())
    const link = frame().contentDocument!.querySelector('a')!
    const event = new Event(type, { bubbles: true, cancelable: true })
    link.dispatchEvent(event)
    expect(event.defaultPrevented).toBe(true)
  })

  test('stays the same document when the frame’s size or its page changes', () => {
    draw(page())
    const before = frame().contentDocument
    draw(
      <PageFrame title="The page" width={390} height={600} scale={1} head={null} isFocusHome>
        <p>Other words</p>
      </PageFrame>,
    )
    expect(frame().contentDocument).toBe(before)
    expect(frame().getAttribute('width')).toBe('390')
    expect(before!.body.textContent).toBe('Other words')
  })
})

describe('what comes after the page', () => {
  beforeEach(() => {
    jest.useFakeTimers()
  })
  afterEach(() => {
    jest.useRealTimers()
  })

  function Screen({ isRendered }: { isRendered: boolean }) {
    return (
      <FirstIsThereProvider value={usePainted(isRendered)}>
        <AfterFirst instead={<i>kept free</i>}>
          <b>the panes</b>
        </AfterFirst>
      </FirstIsThereProvider>
    )
  }
  const shown = (): string => document.getElementById('here')?.textContent ?? ''
  const later = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms))

  test('waits with its place kept free for as long as there is no page, and comes once it was painted', async () => {
    draw(<Screen isRendered={false} />)
    await later(10_000)
    expect(shown()).toBe('kept free')
    draw(<Screen isRendered />)
    expect(shown()).toBe('kept free')
    await later(1_000)
    expect(shown()).toBe('the panes')
  })

  test('stays when the page is drawn anew', async () => {
    draw(<Screen isRendered />)
    await later(1_000)
    draw(<Screen isRendered={false} />)
    await later(1_000)
    expect(shown()).toBe('the panes')
  })

  test('comes as well where no frame is ever painted, as in a tab in the background', async () => {
    const painted = jest.spyOn(window, 'requestAnimationFrame').mockImplementation(() => 0)
    draw(<Screen isRendered />)
    await later(5_000)
    expect(shown()).toBe('the panes')
    painted.mockRestore()
  })

  test('is there at once where nothing comes first', () => {
    draw(
      <AfterFirst>
        <b>a button</b>
      </AfterFirst>,
    )
    expect(shown()).toBe('a button')
  })
})
