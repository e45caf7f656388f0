/** What instances of components fill in, through the server: saved with their page, seen by visitors, refused where it can't be. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { defaultRegistry, linkedPart, type MediaUse, type Page, type SavedPart } from '@gullyline/core'
import { newId, nodeOf, SITE, startWithParts } from './with-parts.ts'

let at: Awaited<ReturnType<typeof startWithParts>>
beforeAll(async () => {
  at = await startWithParts()
})
afterAll(() => at.server.close())

describe('what an instance of a component fills in', () => {
  /** A part whose heading is a field, and a page with an instance that fills it in. */
  async function addComponent(name: string): Promise<{ readonly part: SavedPart; readonly version: number }> {
    const part = await at.addPart(name, 'As the component says')
    const version = await at.place('tmradio', part.id)
    const root = part.document.nodes[part.id]!
    const fields = [{ id: 'said', name: 'Title', node: root.slots.blocks![0]!, key: 'text' }]
    const document = {
      ...part.document,
      nodes: { ...part.document.nodes, [part.id]: { ...root, content: { fields } } },
    }
    const { status } = await at.save('tmradio', {
      base: version,
      shared: [{ id: part.id, base: 1, document }],
    })
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
    const { document } = await at.open('tmradio')
    const saved = await at.save('tmradio', {
      base: version,
      document: filled(document, part.id, 'Said by the page'),
    })
    expect(saved.status).toBe(200)
    await at.publish('tmradio', { version: version + 1, shared: { [part.id]: 2 } })
    const html = await at.visited('/instruments/radio-dish/')
    expect(html).toContain('Said by the page')
    expect(html).not.toContain('As the component says')
  })

  test.each([
    [true],
    [{ href: 'javascript:alert(1)' }],
    [[{ text: 'x', marks: ['blink'] }]],
    ['x'.repeat(100_001)],
  ])('is refused where its block can’t have it: %j', async (value) => {
    const { part, version } = await addComponent(`Refused ${newId()}`)
    const { document } = await at.open('tmradio')
    const { status, body } = await at.save('tmradio', {
      base: version,
      document: filled(document, part.id, value),
    })
    expect([status, body.code]).toEqual([422, 'not-valid'])
    expect((await at.open('tmradio')).summary.version).toBe(version)
  })

  test('stays where its field is of another type by now: the page is saved with it, shows it where it can, and waits where it can’t', async () => {
    const { part, version } = await addComponent('Changes its type')
    const { document } = await at.open('tmradio')
    const said = filled(document, part.id, 'Seven')
    expect((await at.save('tmradio', { base: version, document: said })).status).toBe(200)
    const root = part.document.nodes[part.id]!
    const turned = (kind: string, content: object, key: string): Page => ({
      ...part.document,
      nodes: {
        ...part.document.nodes,
        [part.id]: {
          ...root,
          content: { fields: [{ id: 'said', name: 'Title', node: root.slots.blocks![0]!, key }] },
        },
        [root.slots.blocks![0]!]: nodeOf(kind, content as never),
      },
    })
    const text = turned('text', { words: [{ type: 'paragraph', runs: [{ text: 'T' }] }] }, 'words')
    const asText = await at.save('tmradio', {
      base: version + 1,
      document: said,
      shared: [{ id: part.id, base: 2, document: text }],
    })
    expect(asText.status).toBe(200)
    await at.publish('tmradio', { version: version + 2, shared: { [part.id]: 3 } })
    expect(await at.visited('/instruments/radio-dish/')).toContain('Seven')
    const picture = turned('picture', { media: { id: 'tmdome' }, alt: 'Something' }, 'media')
    const shared = [{ id: part.id, base: 3, document: picture }]
    expect((await at.save('tmradio', { base: version + 2, shared })).status).toBe(200)
    const again = await at.save('tmradio', { base: version + 2, document: filled(said, part.id, 'Seven') })
    expect(again.status).toBe(200)
    const refused = await at.publish('tmradio', { version: version + 3, shared: { [part.id]: 4 } })
    expect([refused.status, refused.body.code]).toEqual([409, 'has-problems'])
    expect(JSON.stringify(refused.body.problems)).toContain('the field changed its type')
  })

  test('keeps a page from going live while something required is not filled in, also inside of another part', async () => {
    const { part } = await addComponent('Asks for a title')
    const root = part.document.nodes[part.id]!
    const fields = [{ id: 'said', name: 'Title', node: root.slots.blocks![0]!, key: 'text', required: true }]
    const document = {
      ...part.document,
      nodes: { ...part.document.nodes, [part.id]: { ...root, content: { fields } } },
    }
    const shared = [{ id: part.id, base: 2, document }]
    const before = (await at.open('tmradio')).summary.version
    expect((await at.save('tmradio', { base: before, shared })).status).toBe(200)
    const holder = await at.addPart('Holds the card', 'Around it', {
      inside: nodeOf('linked-blocks', { part: part.id }),
    })
    const version = await at.place('tmfriend', holder.id)
    const refused = await at.publish('tmfriend', { version, shared: { [part.id]: 3, [holder.id]: 1 } })
    expect([refused.status, refused.body.code]).toEqual([409, 'has-problems'])
    expect(JSON.stringify(refused.body.problems)).toContain('“Title” is not filled in')
    const inside = { ...holder.document.nodes.inside!, values: { said: 'Filled in' } }
    const filledIn = { ...holder.document, nodes: { ...holder.document.nodes, inside } }
    const next = [{ id: holder.id, base: 1, document: filledIn as Page }]
    expect((await at.save('tmfriend', { base: version, shared: next })).status).toBe(200)
    const done = await at.publish('tmfriend', { version, shared: { [part.id]: 3, [holder.id]: 2 } })
    expect(done.status).toBe(200)
  })

  test('stays for itself where the component is replaced by copies', async () => {
    const { part, version } = await addComponent('Copied with values')
    const { document } = await at.open('tmradio')
    await at.save('tmradio', { base: version, document: filled(document, part.id, 'Kept by the copy') })
    expect((await at.replace(part.id, 'copies')).status).toBe(200)
    const copied = Object.values((await at.open('tmradio')).document.nodes)
    expect(copied.some(({ content }) => content.text === 'Kept by the copy')).toBe(true)
  })

  test('is where a picture is used that stands in nothing else, and the page is opened with it', async () => {
    const part = await at.addPart('With a picture', 'Words', {
      pic: nodeOf('picture', { media: { id: 'tmdome' }, alt: 'Something' }),
    })
    const version = await at.place('tmradio', part.id)
    const root = part.document.nodes[part.id]!
    const fields = [{ id: 'said', name: 'Picture', node: 'pic', key: 'media' }]
    const document = {
      ...part.document,
      nodes: { ...part.document.nodes, [part.id]: { ...root, content: { fields } } },
    }
    await at.save('tmradio', { base: version, shared: [{ id: part.id, base: 1, document }] })
    const before = await at.open('tmradio')
    expect(Object.keys(before.around.pictures)).not.toContain('tmmoon')
    const page = filled(before.document, part.id, { id: 'tmmoon' })
    const { status } = await at.save('tmradio', { base: version, document: page })
    expect(status).toBe(200)
    const uses = (await at.server.ask<MediaUse[]>(`${SITE}/media/tmmoon/uses`)).body
    expect(uses).toContainEqual(expect.objectContaining({ pageId: 'tmradio' }))
    expect(Object.keys((await at.open('tmradio')).around.pictures)).toContain('tmmoon')
  })

  test('is carried over to the fields of the same names where another component comes in its place', async () => {
    const { part, version } = await addComponent('Carried from')
    const { document } = await at.open('tmradio')
    await at.save('tmradio', { base: version, document: filled(document, part.id, 'Carried over') })
    const { part: other } = await addComponent('Carried to')
    expect((await at.replace(part.id, { part: other.id })).status).toBe(200)
    const next = (await at.open('tmradio')).document
    const instances = Object.values(next.nodes).filter(
      (node) => linkedPart(node, defaultRegistry) === other.id,
    )
    expect(instances.map(({ values }) => values?.said)).toContain('Carried over')
  })
})
