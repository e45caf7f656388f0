/** Which addresses a page may link to, judged by the URL Standard's own test data; see data/README.md. */
import { describe, expect, test } from '@jest/globals'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { hrefFault, safeHref } from '../src/kit/allow-list.ts'

interface Example {
  readonly input: string
  /** Of the page that the address stands on; "about:blank" where it stands alone. */
  readonly base: string
  readonly failure?: true
  readonly href?: string
  readonly protocol?: string
  readonly host?: string
}
const file = join(import.meta.dirname, 'data/urltestdata.json')
const examples = (JSON.parse(readFileSync(file, 'utf8')) as (Example | string)[]).filter(
  (one): one is Example => typeof one !== 'string',
)
const onWeb = examples.filter(({ base }) => /^https?:/.test(base))
const alone = examples.filter(({ base }) => base === 'about:blank')
const ALLOWED = ['http:', 'https:', 'mailto:', 'tel:']

/** The examples that are not as they should be; a list, so that a failing test shows them all. */
const wrong = (of: readonly Example[], isRight: (one: Example) => boolean) =>
  of.filter((one) => !isRight(one)).map(({ input, base }) => [input, base])

describe('addresses, by the URL Standard’s test data', () => {
  test('the data are there', () => {
    expect(onWeb.length).toBeGreaterThan(150)
    expect(alone.length).toBeGreaterThan(200)
  })

  test('what is let through leads by no other scheme than those allowed, whatever stands in it', () => {
    const through = [...onWeb, ...alone].filter(
      ({ input, failure }) => !failure && safeHref(input) !== undefined,
    )
    expect(through.length).toBeGreaterThan(200)
    expect(
      wrong(through, ({ input, protocol }) => ALLOWED.includes(protocol!) || input.startsWith('#')),
    ).toEqual([])
  })

  test('nothing that names an allowed scheme is refused, and of the rest only what has a colon where a scheme would stand', () => {
    const good = [...onWeb, ...alone].filter(
      ({ failure, protocol }) => !failure && ALLOWED.includes(protocol!),
    )
    expect(good.length).toBeGreaterThan(200)
    const refused = good.filter(({ input }) => input.trim() !== '' && safeHref(input) === undefined)
    expect(wrong(refused, ({ input }) => !/^\s*(https?|mailto|tel):/i.test(input))).toEqual([])
    expect(wrong(refused, ({ input }) => /^[^/?#]*:/.test(input))).toEqual([])
  })

  test('what is complete is read by every browser, and as the same address whatever page it stands on', () => {
    const complete = examples.filter(({ input }) => hrefFault(input) === undefined)
    const absolute = complete.filter(({ input }) => /^\s*https?:/i.test(input))
    expect(absolute.length).toBeGreaterThan(80)
    expect(wrong(absolute, ({ failure }) => !failure)).toEqual([])
    for (const { input, href } of absolute)
      for (const base of ['https://a.example/b/c', 'http://d.example/'])
        expect([input, new URL(input, base).href]).toEqual([input, href])
  })

  test('what passes for a place of this site stays on it', () => {
    const here = onWeb.filter(({ input }) => /^[/#?]/.test(input.trim()) && hrefFault(input) === undefined)
    expect(here.length).toBeGreaterThan(15)
    expect(wrong(here, ({ base, host }) => host === new URL(base).host)).toEqual([])
  })

  test('of what no browser can read, nothing goes live as an address of the web', () => {
    const unread = examples.filter(({ failure, input }) => failure && /^\s*https?:\/\//i.test(input))
    expect(unread.length).toBeGreaterThan(80)
    expect(wrong(unread, ({ input }) => hrefFault(input) !== undefined)).toEqual([])
  })

  test.each([
    '/\\elsewhere.example',
    '/\t/elsewhere.example',
    '\\\\elsewhere.example',
    '//elsewhere.example/',
  ])('%j is another host’s address to a browser, and no place of this site', (input) => {
    expect(new URL(input, 'https://here.example/').host).toBe('elsewhere.example')
    expect(hrefFault(input)).toBe('incomplete')
  })
})
