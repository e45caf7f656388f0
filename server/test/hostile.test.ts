/**
 * Requests that are meant to stop the server, against a server of its own: each is refused or done within 2 s, the
 * server's memory stays under 1 GiB, and other people are answered meanwhile. Bounded: each is sent once or a few times.
 */
import { readFile } from 'node:fs/promises'
import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals'
import sharp from 'sharp'
import type { ErrorBody } from '@gullyline/core'
import { patienceOf } from '../../scripts/lib/patience.mjs'
import { Machine } from './power-cuts.ts'

const LONGEST_MS = 2_000
const LONGEST_WAIT_MS = 200
const ATTEMPTS = 3
const MOST_MEMORY_KIB = 1024 * 1024

const machine = new Machine()
beforeAll(() => machine.start())
afterAll(() => machine.stop())

/** The most memory the server ever had resident, in KiB (proc(5), VmHWM). */
async function peakMemory(): Promise<number> {
  const status = await readFile(`/proc/${machine.serverPid}/status`, 'utf8')
  return Number(/^VmHWM:\s+(\d+) kB/m.exec(status)?.[1])
}

/** How long other people wait for an answer while something is done, in ms: the middle of many. */
async function othersWait<T>(act: () => Promise<T>): Promise<{ result: T; took: number; wait: number }> {
  const waits: number[] = []
  let isOver = false
  const others = (async () => {
    while (!isOver) {
      const before = performance.now()
      expect((await machine.ask('/api/session')).status).toBe(200)
      waits.push(performance.now() - before)
      await new Promise((resolve) => setTimeout(resolve, 10))
    }
  })()
  const before = performance.now()
  const result = await act()
  const took = performance.now() - before
  isOver = true
  await others
  return { result, took, wait: waits.sort((a, b) => a - b)[waits.length >> 1] ?? 0 }
}

/** Sends a request up to three times, since a machine may stand still for a moment: a request that is slow by itself is slow each time. */
async function expectInTime<T>(act: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const { result, took, wait } = await othersWait(act)
    const isInTime = took < patienceOf(LONGEST_MS, took) && wait < patienceOf(LONGEST_WAIT_MS, wait)
    if (isInTime) return result
    if (attempt === ATTEMPTS) throw new Error(`It took ${took} ms each time, and others waited ${wait} ms`)
  }
}

async function expectRefused(
  send: () => Promise<Response>,
  status: number | readonly number[],
): Promise<void> {
  const result = await expectInTime(send)
  const body = (await result.json()) as ErrorBody
  expect([status].flat()).toContain(result.status)
  expect(body.message.length).toBeGreaterThan(10)
}

afterEach(async () => {
  expect(await peakMemory()).toBeLessThan(MOST_MEMORY_KIB)
  // It is still there, and has lost nothing.
  expect((await machine.open('tmhome')).summary.title).not.toBe('')
})

const node = (kind: string, more: object = {}) => ({
  kind,
  content: {},
  look: {},
  sizes: { base: {} },
  slots: {},
  ...more,
})
const NO_OTHERS = { sections: [], main: [], side: [], aside: [] }
const pageWith = (nodes: object, root: object = node('page', { slots: NO_OTHERS })) => ({
  format: 2,
  root: 'r',
  nodes: { r: root, ...nodes },
})
const nest = (levels: number, open: string, close: string) => open.repeat(levels) + close.repeat(levels)
const many = <T>(count: number, make: (i: number) => T): T[] =>
  Array.from({ length: count }, (_unused, i) => make(i))
const textNode = (words: unknown) => node('text', { content: { words } })
const section = (children: readonly string[]) => node('section', { slots: { blocks: children } })
const holding = (...children: string[]) => node('page', { slots: { ...NO_OTHERS, sections: children } })

describe('documents', () => {
  const save = (document: unknown) => () =>
    machine.ask('/api/sites/tarrowmoor/pages/tmhome/document', 'PUT', { base: 1, document, journal: null })
  const raw = (json: string) => () => machine.send('/api/sites/tarrowmoor/pages/tmhome/document', 'PUT', json)

  test.each<[string, () => Promise<Response>]>([
    ['a section that holds itself', save(pageWith({ s: section(['s']) }, holding('s')))],
    [
      'two sections that hold each other',
      save(pageWith({ s: section(['t']), t: section(['s']) }, holding('s'))),
    ],
    ['20,001 nodes', save(pageWith(Object.fromEntries(many(20_001, (i) => [`n${i}`, section([])]))))],
    [
      '15,000 nodes of no kind',
      save(pageWith(Object.fromEntries(many(15_000, (i) => [`n${i}`, node('rocket')])))),
    ],
    [
      '15,000 nodes each with ten fields too many',
      save(
        pageWith(
          Object.fromEntries(
            many(15_000, (i) => [
              `n${i}`,
              node('section', Object.fromEntries(many(10, (j) => [`x${j}`, 1]))),
            ]),
          ),
        ),
      ),
    ],
    [
      '100,000 marks on one word',
      save(
        pageWith(
          {
            s: section(['t']),
            t: textNode([{ type: 'paragraph', runs: [{ text: 'x', marks: many(100_000, () => ({})) }] }]),
          },
          holding('s'),
        ),
      ),
    ],
    [
      '20,000 different marks that are none',
      save(
        pageWith(
          {
            s: section(['t']),
            t: textNode([{ type: 'paragraph', runs: [{ text: 'x', marks: many(20_000, (i) => `m${i}`) }] }]),
          },
          holding('s'),
        ),
      ),
    ],
    [
      'a table of a million cells',
      save(
        pageWith(
          {
            s: section(['t']),
            t: node('table', { content: { rows: many(1_000, () => many(1_000, () => 'x')) } }),
          },
          holding('s'),
        ),
      ),
    ],
    [
      'half a surrogate pair',
      raw(
        '{"base":1,"journal":null,"document":{"format":2,"root":"r","nodes":{"r":{"kind":"page","content":{"pageTitle":"\\ud800"},"look":{},"sizes":{"base":{}},"slots":{}}}}}',
      ),
    ],
    ['half a surrogate pair as a key', raw('{"base":1,"journal":null,"document":{"\\udc00":1}}')],
    ['a million lists in lists', raw(`{"base":1,"journal":null,"document":${nest(1_000_000, '[', ']')}}`)],
    [
      'a million objects in objects',
      raw(`{"base":1,"journal":null,"document":${nest(1_000_000, '{"a":', '}')}`),
    ],
    [
      'a prototype as a field',
      raw('{"base":1,"journal":null,"document":{"__proto__":{"format":2},"root":"r","nodes":{}}}'),
    ],
    ['a number that is no number', raw('{"base":1e999,"journal":null,"document":{}}')],
    ['an id of a megabyte', save(pageWith({ ['x'.repeat(1_000_000)]: section([]) }))],
    [
      'text of a quarter of a million letters in one run',
      save(
        pageWith(
          { s: section(['t']), t: textNode([{ type: 'paragraph', runs: [{ text: 'x'.repeat(250_000) }] }]) },
          holding('s'),
        ),
      ),
    ],
    ['no JSON', raw('{"base":')],
    ['nothing', raw('')],
  ])('%s', async (_what, send) => expectRefused(send, [400, 409, 413, 422]))

  test('nine megabytes are not read to their end', async () => {
    await expectRefused(raw(`"${'x'.repeat(9 * 1024 * 1024)}"`), 413)
    // The server ends such a connection half a second later; a request sent into its end would fail (RFC 9112, 9.3.1).
    await new Promise((resolve) => setTimeout(resolve, 1_500))
  })
})

describe('journals', () => {
  const post =
    (edits: unknown, page = 'tmhome') =>
    () =>
      machine.ask(`/api/sites/tarrowmoor/pages/${page}/journal/hostile`, 'POST', {
        entries: [{ number: 0, base: 1, at: 1, edits }],
      })
  test.each<[string, () => Promise<Response>]>([
    ['edits of no kind', post(many(10_000, () => ({ edit: 'explode' })))],
    [
      'nodes that are a number',
      post([{ edit: 'insert', parentId: 'a', slot: 'b', index: 0, rootId: 'c', nodes: 5 }]),
    ],
    [
      'a value too deep for the database',
      post([{ edit: 'set', nodeId: 'a', at: ['name'], value: JSON.parse(nest(60, '[', ']')) as unknown }]),
    ],
    [
      'an address of ten thousand steps',
      post([{ edit: 'set', nodeId: 'a', at: many(10_000, () => 'content'), value: 1 }]),
    ],
    ['a page that does not exist', post([], 'nosuch')],
  ])('%s', async (_what, send) => expectRefused(send, [400, 404]))

  test('18 posts of 8 MB leave a page that opens as before', async () => {
    const big = [{ edit: 'set', nodeId: 'a', at: ['name'], value: 'x'.repeat(7_900_000) }]
    const answers: number[] = []
    for (let i = 0; i < 18; i += 6)
      answers.push(...(await Promise.all(many(6, async () => (await post(big)()).status))))
    expect(new Set(answers)).toEqual(new Set([413]))
    const offered = await (await machine.ask('/api/sites/tarrowmoor/pages/tmhome/journal')).text()
    expect(offered.length).toBeLessThan(1_000)
  })
})

describe('drawings', () => {
  const upload = (svg: string) => () =>
    machine.upload('/api/sites/tarrowmoor/media?name=drawing.svg', Buffer.from(svg))
  const svg = (inside: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10">${inside}</svg>`
  test.each<[string, () => Promise<Response>]>([
    ['groups nested 10,000 deep', upload(svg(nest(10_000, '<g>', '</g>')))],
    ['groups nested 20,000 deep that never end', upload(svg('<g>'.repeat(20_000)))],
    ['140,000 elements', upload(svg('<g/>'.repeat(140_000)))],
    ['200,000 attributes', upload(svg(`<g ${many(200_000, (i) => `a${i}="1"`).join(' ')}/>`))],
    ['unfinished tags', upload(svg('<g '.repeat(50_000)))],
    [
      'entities that grow (CVE-2003-1564, “billion laughs”)',
      upload(
        `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">${many(9, (i) => `<!ENTITY ${'bcdefghij'[i]} "${`&${'abcdefghi'[i]};`.repeat(10)}">`).join('')}]>${svg('<text>&j;</text>')}`,
      ),
    ],
    ['three megabytes', upload(svg('<path d="M0 0"/>'.repeat(200_000)))],
    ['no size at all', upload('<svg xmlns="http://www.w3.org/2000/svg"></svg>')],
  ])('%s', async (_what, send) => {
    const result = await expectInTime(send)
    // Refused, or taken without what is hostile in it: a drawing of letters that name no entity is a drawing.
    expect([201, 413, 422]).toContain(result.status)
  })

  test('what reaches elsewhere is taken out after escapes were read', async () => {
    const attempts = [
      'fill="url(https://elsewhere.example/a.svg#x)"',
      'fill="u\\72l(https://elsewhere.example/a)"',
      'fill="\\75\\72\\6c(https://elsewhere.example/a)"',
      'mask="url/**/(https://elsewhere.example/a)"',
      'filter="url( &quot;https://elsewhere.example/a&quot; )"',
      'cursor="image-set(&quot;https://elsewhere.example/a&quot; 1x)"',
      'xlink:href="https://elsewhere.example/a"',
      'onload="elsewhere.example"',
    ]
    const inside = attempts.map((one) => `<rect width="5" height="5" ${one}/>`).join('')
    const answer = await upload(
      `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="9" height="9">${inside}<image href="https://elsewhere.example/a.png"/><use href="https://elsewhere.example/a.svg#x"/><rect fill="url(#own)" width="1" height="1"/></svg>`,
    )()
    expect(answer.status).toBe(201)
    const { fallback } = (await answer.json()) as { fallback: string }
    const clean = await (await machine.ask(fallback)).text()
    expect(clean).not.toContain('elsewhere')
    expect(clean).toContain('url(#own)')
  })
})

describe('pictures', () => {
  const upload =
    (bytes: Buffer, name = 'picture.png') =>
    () =>
      machine.upload(`/api/sites/tarrowmoor/media?name=${name}`, bytes)
  /** The first bytes of a PNG that says it is so large (PNG specification, 11.2.2 IHDR); what follows is missing. */
  const headOf = (width: number, height: number): Buffer => {
    const head = Buffer.alloc(8 + 25)
    head.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
    head.writeUInt32BE(13, 8)
    head.write('IHDR', 12)
    head.writeUInt32BE(width, 16)
    head.writeUInt32BE(height, 20)
    head.set([8, 6, 0, 0, 0], 24)
    return head
  }
  /** The head of a GIF (GIF89a, 18 "Logical Screen Descriptor"). */
  const gifOf = (width: number, height: number): Buffer => {
    const head = Buffer.alloc(32)
    head.write('GIF89a')
    head.writeUInt16LE(width, 6)
    head.writeUInt16LE(height, 8)
    return head
  }
  const flat = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 4, background: '#123' }, limitInputPixels: false })

  test.each<[string, () => Promise<Buffer>]>([
    ['a PNG of a million by a million', () => Promise.resolve(headOf(1_000_000, 1_000_000))],
    ['a PNG of four thousand million by one', () => Promise.resolve(headOf(4_000_000_000, 1))],
    ['a PNG of 30,000 by 100', () => flat(30_000, 100).png({ compressionLevel: 1 }).toBuffer()],
    [
      'a PNG of 8,000 by 7,000, in a few kilobytes',
      () => flat(8_000, 7_000).png({ compressionLevel: 1 }).toBuffer(),
    ],
    ['a JPEG of 8,000 by 7,000', () => flat(8_000, 7_000).jpeg({ quality: 1 }).toBuffer()],
    ['a GIF of 60,000 by 60,000', () => Promise.resolve(gifOf(60_000, 60_000))],
    ['a PNG that breaks off', async () => (await flat(100, 100).png().toBuffer()).subarray(0, 60)],
    ['a GIF that is none', () => Promise.resolve(Buffer.from('GIF89a' + 'x'.repeat(100)))],
    ['a program', () => Promise.resolve(Buffer.from('\x7fELF' + 'x'.repeat(1000)))],
    ['nothing', () => Promise.resolve(Buffer.alloc(0))],
  ])(
    '%s',
    async (_what, make) => {
      const bytes = await make()
      await expectRefused(upload(bytes), [413, 422])
    },
    60_000,
  )

  test('200 MB are refused before they are read', async () => {
    const upload = { type: 'application/octet-stream', bytes: 200 * 1024 * 1024, isSignedIn: true }
    await expectRefused(() => machine.begin('/api/sites/tarrowmoor/media?name=big.jpg', upload), 413)
  })
})

describe('people who are not signed in', () => {
  test('begin 30 uploads of 39 MB, and are refused before anything of them is read', async () => {
    const before = await peakMemory()
    const upload = { type: 'application/octet-stream', bytes: 39 * 1024 * 1024, isSignedIn: false }
    const result = await expectInTime(() =>
      Promise.all(many(30, () => machine.begin('/api/sites/tarrowmoor/media?name=a.jpg', upload))),
    )
    expect(new Set(result.map(({ status }) => status))).toEqual(new Set([401]))
    expect((await peakMemory()) - before).toBeLessThan(50 * 1024)
  })

  test('try 200 passwords at once: other people are answered, and most are told to wait', async () => {
    const { result, wait } = await othersWait(() =>
      Promise.all(
        many(200, (i) =>
          machine.unsigned(
            '/api/session',
            'POST',
            JSON.stringify({ login: `made-up-${i}`, password: 'wrong wrong wrong' }),
          ),
        ),
      ),
    )
    const statuses = result.map(({ status }) => status)
    expect(statuses.every((status) => [401, 429, 503].includes(status))).toBe(true)
    expect(statuses.filter((status) => status === 401).length).toBeLessThanOrEqual(30)
    expect(wait).toBeLessThan(patienceOf(LONGEST_WAIT_MS, wait))
  })

  test('a name and a password of a megabyte are refused unread', async () => {
    const signIn = { type: 'application/json', bytes: 1_000_000, isSignedIn: false }
    await expectRefused(() => machine.begin('/api/session', signIn), 413)
  })
  test('lists in lists are no name', async () => {
    await expectRefused(() => machine.unsigned('/api/session', 'POST', nest(8_000, '[', ']')), 400)
  })
})
