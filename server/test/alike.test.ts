/** Sections that are nearly alike, through the server: found on all pages, and made one part, all pages or none. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { AlikeAnswer, AlikeGroup, JoinedAlike, OpenedPage, Page, PartUse } from '@gullyline/core'
import { nodeOf, SITE, startWithParts } from './with-parts.ts'

let at: Awaited<ReturnType<typeof startWithParts>>
beforeAll(async () => {
  at = await startWithParts()
})
afterAll(() => at.server.close())

/** Adds a page with one section that says this, and publishes it. */
async function addPage(title: string, words: string): Promise<string> {
  const made = await at.server.ask<OpenedPage>(`${SITE}/pages`, {
    method: 'POST',
    body: { title, parentId: null },
  })
  const { summary, document } = made.body
  const root = document.nodes[document.root]!
  const next: Page = {
    ...document,
    nodes: {
      [document.root]: {
        ...root,
        content: { ...root.content, description: 'About it' },
        slots: { ...root.slots, sections: ['s'] },
      },
      s: nodeOf('section', {}, { blocks: ['h', 't', 'b'] }),
      h: nodeOf('heading', { text: title, level: 1 }),
      t: nodeOf('text', { words: [{ type: 'paragraph', runs: [{ text: 'The same on all of them' }] }] }),
      b: nodeOf('button', { text: words, link: { href: 'https://example.org/' } }),
    },
  }
  const saved = await at.save(summary.id, { base: summary.version, document: next })
  expect(saved.status).toBe(200)
  expect((await at.publish(summary.id, { version: summary.version + 1 })).status).toBe(200)
  return summary.id
}

const find = async (): Promise<AlikeAnswer> =>
  (await at.server.ask<AlikeAnswer>(`${SITE}/parts/alike`, { method: 'POST', body: {} })).body
const join = (group: AlikeGroup, name: string) =>
  at.server.ask<JoinedAlike>(`${SITE}/parts/join`, {
    method: 'POST',
    body: {
      name,
      purpose: 'other',
      about: '',
      sections: group.sections.map(({ pageId, version, nodeId }) => ({ pageId, version, nodeId })),
    },
  })
const groupWith = ({ groups }: AlikeAnswer, title: string): AlikeGroup =>
  groups.find(({ sections }) => sections.some(({ pageTitle }) => pageTitle === title))!

test('alike sections of several pages are found with what differs, and one act makes a component that changes nothing for visitors', async () => {
  const ids = [
    await addPage('Fog one', 'Book'),
    await addPage('Fog two', 'Book'),
    await addPage('Fog three', 'Call'),
  ]
  const before = await Promise.all(['/fog-one/', '/fog-two/', '/fog-three/'].map(at.visited))
  const answer = await find()
  expect(answer.compared).toBeGreaterThan(20)
  const group = groupWith(answer, 'Fog one')
  expect(group.sections.map(({ pageId }) => pageId).sort()).toEqual([...ids].sort())
  expect(group.differences.map(({ name }) => name)).toEqual(['Heading', 'Button'])
  const joined = await join(group, 'Fog call')
  expect([joined.status, joined.body.pages]).toEqual([201, 3])
  const part = joined.body.part.id
  for (const id of ids) {
    const { version } = (await at.open(id)).summary
    expect((await at.publish(id, { version })).status).toBe(200)
  }
  expect(await Promise.all(['/fog-one/', '/fog-two/', '/fog-three/'].map(at.visited))).toEqual(before)
  expect((await at.partNow(part)).reach).toEqual({ pages: 3, live: 3 })
  // Found once: what shows a part is not compared again.
  expect(groupWith(await find(), 'Fog one')).toBeUndefined()
  const uses = (await at.server.ask<PartUse[]>(`${SITE}/parts/uses`)).body.filter((one) => one.part === part)
  expect(uses.map(({ by, type, count }) => [by, type, count]).sort()).toEqual(
    ids.map((id) => [id, 'page', 1]).sort(),
  )
})

test('sections of a page that was saved meanwhile are refused, and nothing has changed', async () => {
  const first = await addPage('Mist one', 'Book')
  await addPage('Mist two', 'Book')
  const group = groupWith(await find(), 'Mist one')
  const { summary, document } = await at.open(first)
  const root = document.nodes[document.root]!
  const named = { ...root, content: { ...root.content, description: 'Another one' } }
  const saved = await at.save(first, {
    base: summary.version,
    document: { ...document, nodes: { ...document.nodes, [document.root]: named } },
  })
  expect(saved.status).toBe(200)
  const parts = (await at.list()).length
  const refused = await join(group, 'Mist call')
  expect([refused.status, refused.body.code]).toEqual([409, 'stale-save'])
  const taken = await join(groupWith(await find(), 'Mist one'), 'Opening hours')
  expect([taken.status, taken.body.code]).toEqual([409, 'name-taken'])
  expect((await at.open(first)).summary.version).toBe(summary.version + 1)
  expect((await at.list()).length).toBe(parts)
})

test('of ten who join the same sections at once one does, and the others are told', async () => {
  await addPage('Haze one', 'Book')
  await addPage('Haze two', 'Book')
  const group = groupWith(await find(), 'Haze one')
  const answers = await Promise.all(Array.from({ length: 10 }, (_one, i) => join(group, `Haze call ${i}`)))
  expect(answers.map(({ status }) => status).sort()).toEqual([201, ...Array.from({ length: 9 }, () => 409)])
  const made = (await at.list()).filter(({ name }) => name.startsWith('Haze call'))
  expect(made).toHaveLength(1)
})

test.each([
  ['ids of nothing', { pageId: 'nowhere', version: 1, nodeId: 's' }, 404],
  ['a block that is no section', { pageId: 'tmhome', version: 1, nodeId: 'nothing' }, 409],
  ['one section named twice', { pageId: 'tmhome', version: 1, nodeId: 'other' }, 400],
])('%s is refused', async (_what, wrong, status) => {
  const sections = [wrong, { pageId: 'tmhome', version: 1, nodeId: 'other' }]
  const body = { name: 'Wrong', purpose: 'other', about: '', sections }
  const answer = await at.server.ask(`${SITE}/parts/join`, { method: 'POST', body })
  expect(answer.status).toBe(status)
})
