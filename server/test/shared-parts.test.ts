/** Shared sections through the server: shown on pages, saved with any of them, live with them, replaced everywhere at once. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import {
  becomeInstanceEdits,
  defaultRegistry,
  instanceFragment,
  linkedPart,
  sharedPartOf,
  validatePage,
  type ErrorBody,
  type LinkedPart,
  type MediaUse,
  type OpenedPage,
  type Page,
  type PageNode,
  type PartPage,
  type PublishResult,
  type SavedPart,
  type SaveResult,
} from '@gullyline/core'
import { applyEdits } from '../../core/src/edits/transaction.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
}, 120_000)
afterAll(() => server.close())

const SITE = '/api/sites/tarrowmoor'
const open = async (id: string) => (await server.ask<OpenedPage>(`${SITE}/pages/${id}`)).body
const list = async () => (await server.ask<SavedPart[]>(`${SITE}/parts`)).body
const partNow = async (id: string) => (await list()).find((one) => one.id === id)!
const save = (id: string, body: object) =>
  server.ask<SaveResult>(`${SITE}/pages/${id}/document`, { method: 'PUT', body: { journal: null, ...body } })
const replace = (id: string, instead: unknown) =>
  server.ask<SavedPart>(`${SITE}/parts/${id}/replace`, { method: 'POST', body: { instead } })
const publish = (id: string, body: object) =>
  server.ask<PublishResult>(`${SITE}/pages/${id}/publish`, { method: 'POST', body })

let made = 0
const newId = (): string => `zz${++made}`

/** A shared section of blocks that says something. */
async function addPart(name: string, words: string, more: Record<string, PageNode> = {}): Promise<SavedPart> {
  const heading: PageNode = {
    kind: 'heading',
    content: { text: words, level: 2 },
    look: {},
    sizes: { base: {} },
    slots: {},
  }
  const page: Page = {
    format: 3,
    root: 'r',
    nodes: {
      r: {
        kind: 'shared-blocks',
        content: {},
        look: {},
        sizes: { base: {} },
        slots: { blocks: ['h', ...Object.keys(more)] },
      },
      h: heading,
      ...more,
    },
  }
  const body = { type: 'shared', name, purpose: 'contact', about: '', document: page }
  const answer = await server.ask<SavedPart>(`${SITE}/parts`, { method: 'POST', body })
  expect(answer.status).toBe(201)
  return answer.body
}

function instanceNode(part: string): PageNode {
  return { kind: 'linked-blocks', content: { part }, look: {}, sizes: { base: {} }, slots: {} }
}

/** The page with an instance at the end of one of its sections. */
function withInstance(page: Page, part: string): Page {
  const [last] = Object.entries(page.nodes).findLast(([, { kind }]) => kind === 'section')!
  const id = newId()
  const section = page.nodes[last]!
  const blocks = [...section.slots.blocks!, id]
  const nodes = { ...page.nodes, [id]: instanceNode(part), [last]: { ...section, slots: { blocks } } }
  return { ...page, nodes }
}

/** Puts an instance on a page, and saves that. Returns the number of its version. */
async function place(pageId: string, part: string): Promise<number> {
  const { summary, document } = await open(pageId)
  const { status } = await save(pageId, { base: summary.version, document: withInstance(document, part) })
  expect(status).toBe(200)
  return summary.version + 1
}

/** The part saying something else. */
function saying(part: { readonly document: Page }, words: string): Page {
  const { document } = part
  const [heading] = document.nodes[document.root]!.slots.blocks!
  const node = document.nodes[heading!]!
  return {
    ...document,
    nodes: { ...document.nodes, [heading!]: { ...node, content: { ...node.content, text: words } } },
  }
}

const visited = async (path: string): Promise<string> =>
  (await server.site.request(`http://localhost:1${path}`)).text()

test('a selection of a page becomes one, with its root called as the document; the page is opened with it', async () => {
  const { document, summary } = await open('tmvisit')
  const [first] = document.nodes[document.root]!.slots.sections!
  const body = {
    type: 'shared',
    name: 'The top of a visit',
    purpose: 'introduction',
    about: '',
    document: sharedPartOf(document, [first!], defaultRegistry, newId),
  }
  const { body: part } = await server.ask<SavedPart>(`${SITE}/parts`, { method: 'POST', body })
  expect(part).toMatchObject({ type: 'shared', version: 1, liveVersion: null, reach: { pages: 0, live: 0 } })
  expect(part.document.root).toBe(part.id)
  const instance = instanceFragment(part.id, part.document, defaultRegistry, newId)
  const edits = becomeInstanceEdits(document, [first!], instance)
  const applied = applyEdits(document, edits, defaultRegistry)
  if (!applied.ok) throw new Error(applied.message)
  const { status } = await save('tmvisit', { base: summary.version, document: applied.page })
  expect(status).toBe(200)
  const { around } = await open('tmvisit')
  expect(around.parts[part.id]).toEqual({
    name: 'The top of a visit',
    document: part.document,
    version: 1,
    liveVersion: null,
    reach: { pages: 1, live: 1 },
  } satisfies LinkedPart)
})

describe('where one stands', () => {
  test('is told at once after every save, also inside of other ones, and of what is on every page', async () => {
    const inner = await addPart('Reach, inner', 'Inner')
    const outer = await addPart('Reach, outer', 'Outer', { i: instanceNode(inner.id) })
    await place('tmabout', outer.id)
    await place('tmtonight', inner.id)
    expect((await partNow(outer.id)).reach).toEqual({ pages: 1, live: 1 })
    expect((await partNow(inner.id)).reach).toEqual({ pages: 2, live: 2 })
    const { body: pages } = await server.ask<PartPage[]>(`${SITE}/parts/${inner.id}/pages`)
    expect(pages.map(({ path, isLive }) => [path, isLive])).toEqual([
      ['/about/', true],
      ['/tonight/', true],
    ])
    expect(Object.keys((await open('tmabout')).around.parts)).toEqual(
      expect.arrayContaining([outer.id, inner.id]),
    )
  })
})

test('a part is saved with the page, with its own version; a stale one is refused whole, and names it', async () => {
  const part = await addPart('Stale', 'As it was')
  const version = await place('tmbig', part.id)
  const first = saying(part, 'As Tarn has it')
  const shared = [{ id: part.id, base: 1, document: first }]
  const saved = await save('tmbig', { base: version, shared })
  expect([saved.status, saved.body.shared]).toEqual([200, { [part.id]: 2 }])
  const { document } = await open('tmbig')
  const again = await save('tmbig', {
    base: version,
    document,
    shared: [{ id: part.id, base: 1, document: saying(part, 'As Wren has it') }],
  })
  expect([again.status, again.body.code]).toEqual([409, 'stale-save'])
  expect(again.body.stale!.map(({ documentId }) => documentId)).toEqual([part.id])
  expect((await open('tmbig')).summary.version).toBe(version)
  expect((await partNow(part.id)).words).toBe('As Tarn has it')
})

test('what is no part of its kind is refused: whole sections where it was made of blocks, and what no one can show', async () => {
  const part = await addPart('Kept blocks', 'Blocks')
  const version = await place('tmquestions', part.id)
  const other = structuredClone(part.document) as unknown as { nodes: Record<string, { kind: string }> }
  other.nodes[part.id]!.kind = 'shared-sections'
  const asSections = await save('tmquestions', {
    base: version,
    shared: [{ id: part.id, base: 1, document: other }],
  })
  expect([asSections.status, asSections.body.code]).toEqual([422, 'not-valid'])
  const empty = await server.ask(`${SITE}/parts`, {
    method: 'POST',
    body: {
      type: 'shared',
      name: 'Nothing',
      purpose: 'other',
      about: '',
      document: { format: 3, root: 'r', nodes: {} },
    },
  })
  expect([empty.status, empty.body.code]).toEqual([422, 'not-valid'])
})

describe('a ring', () => {
  const closing = (part: SavedPart, other: SavedPart): Page => {
    const root = part.document.nodes[part.id]!
    const blocks = [...root.slots.blocks!, 'ring']
    return {
      ...part.document,
      nodes: {
        ...part.document.nodes,
        ring: instanceNode(other.id),
        [part.id]: { ...root, slots: { blocks } },
      },
    }
  }

  test('is refused with the names of its parts, and nothing is saved', async () => {
    const one = await addPart('Ring one', 'One')
    const two = await addPart('Ring two', 'Two', { i: instanceNode(one.id) })
    const version = await place('tmmirror', two.id)
    const shared = [{ id: one.id, base: 1, document: closing(one, two) }]
    const { status, body } = await save('tmmirror', { base: version, shared })
    expect([status, body.code]).toEqual([422, 'not-valid'])
    expect(body.message).toContain('“Ring one” shows “Ring two” shows “Ring one”')
    expect((await partNow(one.id)).version).toBe(1)
  })

  test('of two that are each put into the other at once, in 20 rounds, one is refused', async () => {
    for (let round = 0; round < 20; round++) {
      const [one, two] = [await addPart(`Left ${round}`, 'L'), await addPart(`Right ${round}`, 'R')]
      const { version } = (await open('tmvisit')).summary
      const answers = await Promise.all([
        save('tmvisit', { base: version, shared: [{ id: one.id, base: 1, document: closing(one, two) }] }),
        save('tmabout', {
          base: (await open('tmabout')).summary.version,
          shared: [{ id: two.id, base: 1, document: closing(two, one) }],
        }),
      ])
      expect(answers.map(({ status }) => status).sort()).toEqual([200, 422])
    }
  }, 120_000)
})

describe('publishing', () => {
  test('a page that shows a part brings it along where visitors never saw it, and not a newer version of it unasked', async () => {
    const part = await addPart('Live', 'Open at dusk')
    const version = await place('tmtonight', part.id)
    expect((await publish('tmtonight', { version })).status).toBe(200)
    expect(await visited('/tonight/')).toContain('Open at dusk')
    expect((await partNow(part.id)).liveVersion).toBe(1)

    const shared = [{ id: part.id, base: 1, document: saying(part, 'Open at nine') }]
    await save('tmtonight', { base: version, shared })
    expect((await publish('tmtonight', { version })).status).toBe(200)
    expect(await visited('/tonight/')).toContain('Open at dusk')
    expect((await publish('tmtonight', { version, shared: { [part.id]: 2 } })).status).toBe(200)
    expect(await visited('/tonight/')).toContain('Open at nine')
  })

  test('a part changes every page that shows it, and those that do not are the same files as before', async () => {
    const part = await addPart('On two pages', 'Every clear Friday')
    for (const id of ['tmabout', 'tmbig']) {
      const version = await place(id, part.id)
      expect((await publish(id, { version })).status).toBe(200)
    }
    const before = await visited('/visit/')
    const { summary } = await open('tmabout')
    await save('tmabout', {
      base: summary.version,
      shared: [{ id: part.id, base: 1, document: saying(part, 'Every clear Saturday') }],
    })
    await publish('tmabout', { version: summary.version, shared: { [part.id]: 2 } })
    for (const path of ['/about/', '/instruments/big-telescope/']) {
      const html = await visited(path)
      expect(html).toContain('Every clear Saturday')
      expect(html).not.toContain('Every clear Friday')
    }
    expect(await visited('/visit/')).toBe(before)
  })

  test('a part with a problem keeps the page from going live, and says where it is', async () => {
    const part = await addPart('With a fault', 'Fine')
    const version = await place('tmquestions', part.id)
    const bad: Page = {
      ...part.document,
      nodes: {
        ...part.document.nodes,
        pic: {
          kind: 'picture',
          content: { media: { id: 'gone' } },
          look: {},
          sizes: { base: {} },
          slots: {},
        },
        [part.id]: { ...part.document.nodes[part.id]!, slots: { blocks: ['h', 'pic'] } },
      },
    }
    // The document was given ids of its own roots only: its blocks are called as they were sent.
    await save('tmquestions', { base: version, shared: [{ id: part.id, base: 1, document: bad }] })
    const { status, body } = await publish('tmquestions', { version, shared: { [part.id]: 2 } })
    expect([status, body.code]).toEqual([409, 'has-problems'])
    expect(body.problems.some(({ pointer }) => pointer.endsWith('/pic'))).toBe(true)
  })

  test('something that is no shared section does not go live with a page', async () => {
    const { summary } = await open('tmvisit')
    const { status, body } = await publish('tmvisit', { version: summary.version, shared: { tmabout: 1 } })
    expect([status, body.code]).toEqual([404, 'not-found'])
  })
})

describe('deleting', () => {
  test('what stands anywhere is refused; nothing has changed', async () => {
    const part = await addPart('In use', 'Words')
    await place('tmvisit', part.id)
    const { status, body } = await server.ask(`${SITE}/parts/${part.id}`, { method: 'DELETE' })
    expect([status, body.code]).toEqual([409, 'in-use'])
    expect((await partNow(part.id)).binnedAt).toBeNull()
  })

  test('with own copies: every page has one, saved by who asked, and visitors see the same until it is published', async () => {
    const part = await addPart('To be copied', 'Said everywhere')
    const version = await place('tmvisit', part.id)
    await publish('tmvisit', { version })
    const live = await visited('/visit/')
    const { status } = await replace(part.id, 'copies')
    expect(status).toBe(200)
    const { document, summary } = await open('tmvisit')
    expect([summary.version, summary.savedBy]).toEqual([version + 1, 'Tarn'])
    expect(validatePage(document, defaultRegistry)).toEqual([])
    const shown = Object.values(document.nodes).map((node) => linkedPart(node, defaultRegistry))
    expect(shown).not.toContain(part.id)
    expect((await partNow(part.id)).binnedAt).not.toBeNull()
    expect(await visited('/visit/')).toBe(live)
    await publish('tmvisit', { version: version + 1 })
    // Its blocks have other ids, which HTML does not say.
    expect(await visited('/visit/')).toBe(live)
  })

  test('with another one: it stands there; one of another sort, itself and what is gone are refused', async () => {
    const part = await addPart('Old hours', 'From nine')
    const other = await addPart('New hours', 'From ten')
    await place('tmabout', part.id)
    for (const instead of [{ part: part.id }, { part: 'nothere' }]) {
      const refused = await replace(part.id, instead)
      expect([404, 422]).toContain(refused.status)
    }
    expect((await replace(part.id, { part: other.id })).status).toBe(200)
    const { around } = await open('tmabout')
    expect(Object.keys(around.parts)).toContain(other.id)
    expect(Object.keys(around.parts)).not.toContain(part.id)
  })

  test('by a reviewer is refused, and so is a request that says nothing', async () => {
    const part = await addPart('Kept', 'Kept')
    const asReviewer = await server.ask<ErrorBody>(`${SITE}/parts/${part.id}/replace`, {
      method: 'POST',
      body: { instead: 'copies' },
      as: 'reviewer',
    })
    expect(asReviewer.status).toBe(403)
    expect((await replace(part.id, 'anything')).status).toBe(400)
  })
})

test('a save of a page and a part that fails half-way leaves both as they were', async () => {
  const part = await addPart('Half-way', 'Before')
  const version = await place('tmmirror', part.id)
  const { document } = await open('tmmirror')
  // The second of its documents is refused once the first was written already.
  const { status } = await save('tmmirror', {
    base: version,
    document: withInstance(document, part.id),
    shared: [{ id: part.id, base: 7, document: saying(part, 'After') }],
  })
  expect(status).toBe(409)
  expect((await open('tmmirror')).summary.version).toBe(version)
  expect((await partNow(part.id)).words).toBe('Before')
})

describe('what an instance of a component fills in', () => {
  /** A part whose heading is a field, and a page with an instance that fills it in. */
  async function addComponent(name: string): Promise<{ readonly part: SavedPart; readonly version: number }> {
    const part = await addPart(name, 'As the component says')
    const version = await place('tmradio', part.id)
    const root = part.document.nodes[part.id]!
    const fields = [{ id: 'said', name: 'Title', node: root.slots.blocks![0]!, key: 'text' }]
    const document = {
      ...part.document,
      nodes: { ...part.document.nodes, [part.id]: { ...root, content: { fields } } },
    }
    const { status } = await save('tmradio', { base: version, shared: [{ id: part.id, base: 1, document }] })
    expect(status).toBe(200)
    return { part, version }
  }
  const filled = (page: Page, part: string, said: unknown): Page => {
    const [id, node] = Object.entries(page.nodes).findLast(
      ([, one]) => linkedPart(one, defaultRegistry) === part,
    )!
    return { ...page, nodes: { ...page.nodes, [id]: { ...node, values: { said } } } as Page['nodes'] }
  }

  test('is saved with the page, and visitors read it; the component says it where nothing is filled in', async () => {
    const { part, version } = await addComponent('Filled in')
    const { document } = await open('tmradio')
    const saved = await save('tmradio', {
      base: version,
      document: filled(document, part.id, 'Said by the page'),
    })
    expect(saved.status).toBe(200)
    await publish('tmradio', { version: version + 1, shared: { [part.id]: 2 } })
    const html = await visited('/instruments/radio-dish/')
    expect(html).toContain('Said by the page')
    expect(html).not.toContain('As the component says')
  })

  test.each([
    [7],
    [{ href: 'javascript:alert(1)' }],
    [[{ text: 'x', marks: ['blink'] }]],
    ['x'.repeat(100_001)],
  ])('is refused where its block can’t have it: %j', async (value) => {
    const { part, version } = await addComponent(`Refused ${++made}`)
    const { document } = await open('tmradio')
    const { status, body } = await save('tmradio', {
      base: version,
      document: filled(document, part.id, value),
    })
    expect([status, body.code]).toEqual([422, 'not-valid'])
    expect((await open('tmradio')).summary.version).toBe(version)
  })

  test('stays for itself where the component is replaced by copies', async () => {
    const { part, version } = await addComponent('Copied with values')
    const { document } = await open('tmradio')
    await save('tmradio', { base: version, document: filled(document, part.id, 'Kept by the copy') })
    expect((await replace(part.id, 'copies')).status).toBe(200)
    const copied = Object.values((await open('tmradio')).document.nodes)
    expect(copied.some(({ content }) => content.text === 'Kept by the copy')).toBe(true)
  })

  test('is where a picture is used that stands in nothing else, and the page is opened with it', async () => {
    const picture = (id: string): PageNode => ({
      kind: 'picture',
      content: { media: { id }, alt: 'Something' },
      look: {},
      sizes: { base: {} },
      slots: {},
    })
    const part = await addPart('With a picture', 'Words', { pic: picture('tmdome') })
    const version = await place('tmradio', part.id)
    const root = part.document.nodes[part.id]!
    const fields = [{ id: 'said', name: 'Picture', node: 'pic', key: 'media' }]
    const document = {
      ...part.document,
      nodes: { ...part.document.nodes, [part.id]: { ...root, content: { fields } } },
    }
    await save('tmradio', { base: version, shared: [{ id: part.id, base: 1, document }] })
    const before = await open('tmradio')
    expect(Object.keys(before.around.pictures)).not.toContain('tmmoon')
    const page = filled(before.document, part.id, { id: 'tmmoon' })
    const { status } = await save('tmradio', { base: version, document: page })
    expect(status).toBe(200)
    const uses = (await server.ask<MediaUse[]>(`${SITE}/media/tmmoon/uses`)).body
    expect(uses).toContainEqual(expect.objectContaining({ pageId: 'tmradio' }))
    expect(Object.keys((await open('tmradio')).around.pictures)).toContain('tmmoon')
  })
})
