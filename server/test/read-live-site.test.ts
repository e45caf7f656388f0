/** The site as it is live, read by what changed since the release before: it is the site that is read from nothing. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Refused } from '../src/http/errors.ts'
import { insertRelease } from '../src/documents/live.ts'
import { findSite } from '../src/documents/site-row.ts'
import { GULLYLINE, insertVersion, lockDocument } from '../src/documents/store.ts'
import { readDocument } from '../src/documents/versions.ts'
import { newId } from '../src/http/new-id.ts'
import { binPage, restorePage } from '../src/pages/bin.ts'
import { changeSlug, movePage } from '../src/pages/tree-acts.ts'
import { readLiveSite, type GoingLive, type LiveSite } from '../src/publish/live-site.ts'
import type { SiteChange } from '../src/db/site-scope.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
let ids: readonly string[]
let headerId: string
beforeAll(async () => {
  server = await startTestServer()
  const { pages, site } = await read(undefined)
  ids = pages.map(({ id }) => id)
  headerId = site.headerId
  await server.scope.change(['site'], async (at) => {
    const locked = await lockDocument(at, headerId)
    const header = readDocument(locked.newest)
    const root = header.nodes[header.root]!
    const document = { ...header, nodes: { ...header.nodes, [header.root]: { ...root, name: 'Another' } } }
    await insertVersion(at, locked, { document, by: GULLYLINE })
  })
})
afterAll(() => server.close())

function read(last: LiveSite | undefined, goingLive: GoingLive = {}): Promise<LiveSite> {
  return server.scope.read(async (at) => {
    const site = await findSite(at)
    return readLiveSite(server.scope, at, { site, goingLive, records: new Map(), last })
  })
}

const aNumber = fc.nat({ max: 99 })
const someAct = fc.record({
  what: fc.constantFrom('move', 'rename', 'bin', 'restore', 'unpublish', 'publish', 'header'),
  one: aNumber,
  other: aNumber,
})
type Act = Readonly<{ what: string; one: number; other: number }>

/** Does an act, and reads the site as the release after it shows it. */
async function doAct({ what, one, other }: Act, last: LiveSite): Promise<LiveSite> {
  const id = ids[one % ids.length]!
  const parentId = [null, ...ids][other % (ids.length + 1)]!
  const change = (act: (at: SiteChange) => Promise<unknown>) => server.scope.change(['pages', 'site'], act)
  if (what === 'publish' || what === 'unpublish' || what === 'header') {
    const versions =
      what === 'header' ? { [headerId]: 1 + (other % 2) } : { [id]: what === 'publish' ? 1 : null }
    const live = await read(last, versions)
    await change((at) => insertRelease(at, { id: newId(), personId: null, versions }))
    return live
  }
  if (what === 'move') await change((at) => movePage(at, id, { parentId, position: other % 4 }))
  if (what === 'rename') await change((at) => changeSlug(at, id, `name-${other}`))
  if (what === 'bin') await change((at) => binPage(at, id))
  if (what === 'restore') await change((at) => restorePage(at, id))
  return read(last)
}

const told = ({ site, header, footer, tree, pages, byId, redirects, parts }: LiveSite) => ({
  site,
  header,
  footer,
  tree: tree.pages,
  pages,
  byId: new Map(byId),
  redirects,
  parts,
})

test('after any acts on the tree it is what is read from nothing, in the same order', async () => {
  const done = { acts: 0, refused: 0 }
  const property = fc.asyncProperty(
    fc.array(someAct, { minLength: 4, maxLength: 12, size: 'max' }),
    async (acts) => {
      let last = await read(undefined)
      for (const act of acts)
        try {
          last = await doAct(act, last)
          done.acts++
          expect(told(last)).toEqual(told(await read(undefined)))
        } catch (error) {
          if (!(error instanceof Refused)) throw error
          done.refused++
        }
    },
  )
  await fc.assert(property, { numRuns: 25, endOnFailure: true })
  expect(done.acts).toBeGreaterThan(50)
  expect(done.refused).toBeGreaterThan(0)
})
