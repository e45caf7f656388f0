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
  type Page,
  type PageSummary,
  type PartPage,
  type SavedPart,
  type SiteInfo,
} from '@gullyline/core'
import { applyEdits } from '../../core/src/edits/transaction.ts'
import { instanceNode, newId, nodeOf, saying, SITE, startWithParts, withInstance } from './with-parts.ts'

let at: Awaited<ReturnType<typeof startWithParts>>
beforeAll(async () => {
  at = await startWithParts()
})
afterAll(() => at.server.close())

test('a selection of a page becomes one, with its root called as the document; the page is opened with it', async () => {
  const { document, summary } = await at.open('tmvisit')
  const [first] = document.nodes[document.root]!.slots.sections!
  const body = {
    type: 'shared',
    name: 'The top of a visit',
    purpose: 'introduction',
    about: '',
    document: sharedPartOf(document, [first!], defaultRegistry, newId),
  }
  const { body: part } = await at.server.ask<SavedPart>(`${SITE}/parts`, { method: 'POST', body })
  expect(part).toMatchObject({ type: 'shared', version: 1, liveVersion: null, reach: { pages: 0, live: 0 } })
  expect(part.document.root).toBe(part.id)
  const instance = instanceFragment(part.id, part.document, defaultRegistry, newId)
  const edits = becomeInstanceEdits(document, [first!], instance)
  const applied = applyEdits(document, edits, defaultRegistry)
  if (!applied.ok) throw new Error(applied.message)
  const { status } = await at.save('tmvisit', { base: summary.version, document: applied.page })
  expect(status).toBe(200)
  const { around } = await at.open('tmvisit')
  expect(around.parts[part.id]).toEqual({
    name: 'The top of a visit',
    document: part.document,
    version: 1,
    liveVersion: null,
    reach: { pages: 1, live: 1 },
  } satisfies LinkedPart)
})

describe('where one stands', () => {
  test('is told at once after every save, also inside of other ones', async () => {
    const inner = await at.addPart('Reach, inner', 'Inner')
    const outer = await at.addPart('Reach, outer', 'Outer', { i: instanceNode(inner.id) })
    await at.place('tmabout', outer.id)
    await at.place('tmtonight', inner.id)
    expect((await at.partNow(outer.id)).reach).toEqual({ pages: 1, live: 1 })
    expect((await at.partNow(inner.id)).reach).toEqual({ pages: 2, live: 2 })
    const { body: pages } = await at.server.ask<PartPage[]>(`${SITE}/parts/${inner.id}/pages`)
    expect(pages.map(({ path, isLive }) => [path, isLive])).toEqual([
      ['/about/', true],
      ['/tonight/', true],
    ])
    expect(Object.keys((await at.open('tmabout')).around.parts)).toEqual(
      expect.arrayContaining([outer.id, inner.id]),
    )
  })

  test('is every page for what stands in the footer', async () => {
    const part = await at.addPart('In the footer', 'Below')
    const { footer, shared } = (await at.server.ask<SiteInfo>(SITE)).body
    const root = footer.nodes[footer.root]!
    const slots = { blocks: [...root.slots.blocks!, 'below'] }
    const nodes = { ...footer.nodes, below: instanceNode(part.id), [footer.root]: { ...root, slots } }
    const { summary } = await at.open('tmvisit')
    const { status } = await at.save('tmvisit', {
      base: summary.version,
      shared: [{ id: shared.footer.id, base: shared.footer.version, document: { ...footer, nodes } }],
    })
    expect(status).toBe(200)
    const pages = (await at.server.ask<PageSummary[]>(`${SITE}/pages`)).body
    const live = pages.filter(({ liveSince }) => liveSince !== null).length
    expect((await at.partNow(part.id)).reach).toEqual({ pages: pages.length, live })
    expect(Object.keys((await at.open('tmnews')).around.parts)).toContain(part.id)
  })
})

test('a part is saved with the page, with its own version; a stale one is refused whole, and names it', async () => {
  const part = await at.addPart('Stale', 'As it was')
  const version = await at.place('tmbig', part.id)
  const first = saying(part, 'As Tarn has it')
  const shared = [{ id: part.id, base: 1, document: first }]
  const saved = await at.save('tmbig', { base: version, shared })
  expect([saved.status, saved.body.shared]).toEqual([200, { [part.id]: 2 }])
  const { document } = await at.open('tmbig')
  const again = await at.save('tmbig', {
    base: version,
    document,
    shared: [{ id: part.id, base: 1, document: saying(part, 'As Wren has it') }],
  })
  expect([again.status, again.body.code]).toEqual([409, 'stale-save'])
  expect(again.body.stale!.map(({ documentId }) => documentId)).toEqual([part.id])
  expect((await at.open('tmbig')).summary.version).toBe(version)
  expect((await at.partNow(part.id)).words).toBe('As Tarn has it')
})

test('what is no part of its kind is refused: whole sections where it was made of blocks, and what no one can show', async () => {
  const part = await at.addPart('Kept blocks', 'Blocks')
  const version = await at.place('tmquestions', part.id)
  const other = structuredClone(part.document) as unknown as { nodes: Record<string, { kind: string }> }
  other.nodes[part.id]!.kind = 'shared-sections'
  const asSections = await at.save('tmquestions', {
    base: version,
    shared: [{ id: part.id, base: 1, document: other }],
  })
  expect([asSections.status, asSections.body.code]).toEqual([422, 'not-valid'])
  const empty = await at.server.ask(`${SITE}/parts`, {
    method: 'POST',
    body: {
      type: 'shared',
      name: 'Nothing',
      purpose: 'other',
      about: '',
      document: { format: 4, root: 'r', nodes: {} },
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
    const one = await at.addPart('Ring one', 'One')
    const two = await at.addPart('Ring two', 'Two', { i: instanceNode(one.id) })
    const version = await at.place('tmmirror', two.id)
    const shared = [{ id: one.id, base: 1, document: closing(one, two) }]
    const { status, body } = await at.save('tmmirror', { base: version, shared })
    expect([status, body.code]).toEqual([422, 'not-valid'])
    expect(body.message).toContain('“Ring one” shows “Ring two” shows “Ring one”')
    expect((await at.partNow(one.id)).version).toBe(1)
  })

  test('of two that are each put into the other at once, in 200 rounds, one is refused', async () => {
    for (let round = 0; round < 200; round++) {
      const [one, two] = [await at.addPart(`Left ${round}`, 'L'), await at.addPart(`Right ${round}`, 'R')]
      const { version } = (await at.open('tmvisit')).summary
      const answers = await Promise.all([
        at.save('tmvisit', { base: version, shared: [{ id: one.id, base: 1, document: closing(one, two) }] }),
        at.save('tmabout', {
          base: (await at.open('tmabout')).summary.version,
          shared: [{ id: two.id, base: 1, document: closing(two, one) }],
        }),
      ])
      expect(answers.map(({ status }) => status).sort()).toEqual([200, 422])
    }
  })
})

describe('publishing', () => {
  test('a page that shows a part brings it along where visitors never saw it, and not a newer version of it unasked', async () => {
    const part = await at.addPart('Live', 'Open at dusk')
    const version = await at.place('tmtonight', part.id)
    expect((await at.publish('tmtonight', { version })).status).toBe(200)
    expect(await at.visited('/tonight/')).toContain('Open at dusk')
    expect((await at.partNow(part.id)).liveVersion).toBe(1)

    const shared = [{ id: part.id, base: 1, document: saying(part, 'Open at nine') }]
    await at.save('tmtonight', { base: version, shared })
    expect((await at.publish('tmtonight', { version })).status).toBe(200)
    expect(await at.visited('/tonight/')).toContain('Open at dusk')
    expect((await at.publish('tmtonight', { version, shared: { [part.id]: 2 } })).status).toBe(200)
    expect(await at.visited('/tonight/')).toContain('Open at nine')
  })

  test('a part changes every page that shows it, and those that do not are the same files as before', async () => {
    const part = await at.addPart('On two pages', 'Every clear Friday')
    for (const id of ['tmabout', 'tmbig']) {
      const version = await at.place(id, part.id)
      expect((await at.publish(id, { version })).status).toBe(200)
    }
    const before = await at.visited('/visit/')
    const { summary } = await at.open('tmabout')
    await at.save('tmabout', {
      base: summary.version,
      shared: [{ id: part.id, base: 1, document: saying(part, 'Every clear Saturday') }],
    })
    await at.publish('tmabout', { version: summary.version, shared: { [part.id]: 2 } })
    for (const path of ['/about/', '/instruments/big-telescope/']) {
      const html = await at.visited(path)
      expect(html).toContain('Every clear Saturday')
      expect(html).not.toContain('Every clear Friday')
    }
    expect(await at.visited('/visit/')).toBe(before)
  })

  test('a part with a problem keeps the page from going live, and says where it is', async () => {
    const part = await at.addPart('With a fault', 'Fine')
    const version = await at.place('tmquestions', part.id)
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
    await at.save('tmquestions', { base: version, shared: [{ id: part.id, base: 1, document: bad }] })
    const { status, body } = await at.publish('tmquestions', { version, shared: { [part.id]: 2 } })
    expect([status, body.code]).toEqual([409, 'has-problems'])
    expect(body.problems.some(({ pointer }) => pointer.endsWith('/pic'))).toBe(true)
  })

  test('something that is no shared section does not go live with a page', async () => {
    const { summary } = await at.open('tmvisit')
    const { status, body } = await at.publish('tmvisit', { version: summary.version, shared: { tmabout: 1 } })
    expect([status, body.code]).toEqual([404, 'not-found'])
  })
})

describe('deleting', () => {
  test('what stands anywhere is refused; nothing has changed', async () => {
    const part = await at.addPart('In use', 'Words')
    await at.place('tmvisit', part.id)
    const { status, body } = await at.server.ask(`${SITE}/parts/${part.id}`, { method: 'DELETE' })
    expect([status, body.code]).toEqual([409, 'in-use'])
    expect((await at.partNow(part.id)).binnedAt).toBeNull()
  })

  test('what stands in a pattern alone is in use, too, and its copy stays there', async () => {
    const part = await at.addPart('In a pattern', 'Once more')
    const root = nodeOf('pattern', {}, { blocks: ['i'] })
    const document = { format: 4, root: 'r', nodes: { r: root, i: instanceNode(part.id) } }
    const body = { name: 'Shows a part', purpose: 'other', about: '', document }
    const pattern = (await at.server.ask<SavedPart>(`${SITE}/parts`, { method: 'POST', body })).body
    expect((await at.partNow(part.id)).reach.pages).toBe(0)
    const { status } = await at.server.ask(`${SITE}/parts/${part.id}`, { method: 'DELETE' })
    expect(status).toBe(409)
    expect((await at.replace(part.id, 'copies')).status).toBe(200)
    expect((await at.partNow(pattern.id)).words).toBe('Once more')
  })

  test('with own copies: every page has one, saved by who asked, and visitors see the same until it is published', async () => {
    const part = await at.addPart('To be copied', 'Said everywhere')
    const version = await at.place('tmvisit', part.id)
    await at.publish('tmvisit', { version })
    const live = await at.visited('/visit/')
    const { status } = await at.replace(part.id, 'copies')
    expect(status).toBe(200)
    const { document, summary } = await at.open('tmvisit')
    expect([summary.version, summary.savedBy]).toEqual([version + 1, 'Tarn'])
    expect(validatePage(document, defaultRegistry)).toEqual([])
    const shown = Object.values(document.nodes).map((node) => linkedPart(node, defaultRegistry))
    expect(shown).not.toContain(part.id)
    expect((await at.partNow(part.id)).binnedAt).not.toBeNull()
    expect(await at.visited('/visit/')).toBe(live)
    await at.publish('tmvisit', { version: version + 1 })
    // Its blocks have other ids, which HTML does not say.
    expect(await at.visited('/visit/')).toBe(live)
  })

  test('with another one: it stands there; one of another sort, itself and what is gone are refused', async () => {
    const part = await at.addPart('Old hours', 'From nine')
    const other = await at.addPart('New hours', 'From ten')
    await at.place('tmabout', part.id)
    for (const instead of [{ part: part.id }, { part: 'nothere' }]) {
      const refused = await at.replace(part.id, instead)
      expect([404, 422]).toContain(refused.status)
    }
    expect((await at.replace(part.id, { part: other.id })).status).toBe(200)
    const { around } = await at.open('tmabout')
    expect(Object.keys(around.parts)).toContain(other.id)
    expect(Object.keys(around.parts)).not.toContain(part.id)
  })

  test('by a reviewer is refused, and so is a request that says nothing', async () => {
    const part = await at.addPart('Kept', 'Kept')
    const asReviewer = await at.server.ask<ErrorBody>(`${SITE}/parts/${part.id}/replace`, {
      method: 'POST',
      body: { instead: 'copies' },
      as: 'reviewer',
    })
    expect(asReviewer.status).toBe(403)
    expect((await at.replace(part.id, 'anything')).status).toBe(400)
  })
})

test('a save that is refused once its first documents are written leaves the page and all parts as they were', async () => {
  const one = await at.addPart('Half-way one', 'Before')
  const two = await at.addPart('Half-way two', 'Before', { i: instanceNode(one.id) })
  const version = await at.place('tmmirror', two.id)
  const { document } = await at.open('tmmirror')
  const root = one.document.nodes[one.id]!
  const ring = {
    ...saying(one, 'After'),
    nodes: {
      ...saying(one, 'After').nodes,
      ring: instanceNode(two.id),
      [one.id]: { ...root, slots: { blocks: [...root.slots.blocks!, 'ring'] } },
    },
  }
  // That it closes a ring is seen in what was written.
  const { status } = await at.save('tmmirror', {
    base: version,
    document: withInstance(document, one.id),
    shared: [
      { id: one.id, base: 1, document: ring },
      { id: two.id, base: 1, document: saying(two, 'After') },
    ],
  })
  expect(status).toBe(422)
  expect((await at.open('tmmirror')).summary.version).toBe(version)
  for (const { id } of [one, two]) {
    const now = await at.partNow(id)
    expect([now.version, now.words.split('\n')[0]]).toEqual([1, 'Before'])
  }
})
