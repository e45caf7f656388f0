/** Two editors on one page through the real server: every edit is in the result, or was shown as a conflict. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  applyEdits,
  defaultRegistry,
  diffPages,
  findNode,
  findPlace,
  mergePages,
  subtreeIds,
  type Conflict,
  type Edit,
  type Page,
  type PageDocument,
  type PageSummary,
  type Role,
} from '@gullyline/core'
import { timesOf } from '../../scripts/lib/soak.mjs'
import { editFor } from '../../core/test/arbitraries/page.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const INTERLEAVINGS = timesOf(200, 3_000)
const EDITS_AT_A_TIME = 4

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

/** An editor as the browser has one: the page it shows, the version that stands on, and what was shown as a conflict. */
class Editor {
  readonly role: Role
  id!: string
  readonly shown: Conflict[] = []
  base!: Page
  page!: Page
  version = 0
  merges = 0

  constructor(role: Role) {
    this.role = role
  }

  async open(id: string): Promise<void> {
    const { document, summary } = (
      await server.ask<PageDocument>(`/api/sites/tarrowmoor/pages/${id}`, { as: this.role })
    ).body
    Object.assign(this, { id, base: document, page: document, version: summary.version })
  }

  edit(seed: number): void {
    for (let n = 0; n < EDITS_AT_A_TIME; n++) {
      const [edit] = fc.sample(editFor(this.page), { numRuns: 1, seed: seed * EDITS_AT_A_TIME + n })
      const result = applyEdits(this.page, [edit as Edit], defaultRegistry)
      if (result.ok) this.page = result.page
    }
  }

  /** Saves, bringing in what the other saved as often as it takes. */
  async save(): Promise<void> {
    for (;;) {
      if (diffPages(this.base, this.page, defaultRegistry).length === 0) return
      const answer = await server.ask<PageSummary>(`/api/sites/tarrowmoor/pages/${this.id}/document`, {
        method: 'PUT',
        body: { base: this.version, document: this.page, journal: null },
        as: this.role,
      })
      if (answer.status === 200) {
        Object.assign(this, { base: this.page, version: answer.body.version })
        return
      }
      expect(answer.body.code).toBe('stale-save')
      const { number } = answer.body.current!
      const theirs = (
        await server.ask<Page>(`/api/sites/tarrowmoor/pages/${this.id}/versions/${number}`, { as: this.role })
      ).body
      const versions = { base: this.base, ours: this.page, theirs }
      const { page, conflicts } = mergePages(versions, defaultRegistry, () => 'ours')
      expectNothingLost(versions, page, conflicts)
      this.merges++
      this.shown.push(...conflicts)
      Object.assign(this, { base: theirs, page, version: number })
    }
  }
}

/** Every change of either side stands in the merged page, or a conflict names its block, one that holds it, or the page. */
function expectNothingLost(
  { base, ours, theirs }: { base: Page; ours: Page; theirs: Page },
  merged: Page,
  conflicts: readonly Conflict[],
): void {
  const named = new Set(conflicts.map((one) => one.nodeId))
  const isShown = (id: string): boolean =>
    named.has(base.root) ||
    [base, ours, theirs, merged].some((page) => {
      for (
        let at: string | undefined = id;
        at !== undefined && findNode(page, at);
        at = findPlace(page, at)?.parentId
      )
        if (named.has(at)) return true
      return false
    })
  for (const side of [ours, theirs]) {
    const other = side === ours ? theirs : ours
    for (const edit of diffPages(base, side, defaultRegistry)) {
      const id = edit.edit === 'insert' ? edit.rootId : edit.nodeId
      if (isShown(id)) continue
      switch (edit.edit) {
        case 'insert':
          expect(findNode(merged, id)).toBeDefined()
          break
        case 'remove':
          expect(findNode(merged, id)).toBeUndefined()
          break
        case 'move': {
          const place = findPlace(side, id)!
          const isElsewhere = findPlace(other, id)?.parentId !== findPlace(base, id)?.parentId
          if (!isElsewhere) expect([id, findPlace(merged, id)?.parentId]).toEqual([id, place.parentId])
          break
        }
        case 'set':
          // Words that both changed in different places are in it together, and equal to neither.
          if (JSON.stringify(valueAt(other, edit)) !== JSON.stringify(valueAt(base, edit))) break
          expect([id, valueAt(merged, edit)]).toEqual([id, valueAt(side, edit)])
      }
    }
  }
}

function valueAt(page: Page, { nodeId, at }: Edit & { edit: 'set' }): unknown {
  return at.reduce<unknown>(
    (value, key) => (value as Record<string, unknown> | undefined)?.[key],
    findNode(page, nodeId),
  )
}

test(
  `${INTERLEAVINGS} random interleavings of two editors lose nothing`,
  async () => {
    const [ines, tarn] = [new Editor('editor'), new Editor('keeper')]
    const random = fc.sample(fc.array(fc.nat({ max: 3 }), { minLength: 4, maxLength: 10 }), {
      numRuns: INTERLEAVINGS,
      seed: 20261125,
    })
    // In turn: on few pages the edits of 200 rounds would pile up, and most of the time go into their size.
    const pages = (await server.ask<PageSummary[]>('/api/sites/tarrowmoor/pages')).body
    for (const [round, acts] of random.entries()) {
      const { id } = pages[round % pages.length]!
      await Promise.all([ines.open(id), tarn.open(id)])
      for (const [step, act] of acts.entries()) {
        const who = act % 2 === 0 ? ines : tarn
        if (act < 2 || step < 2) who.edit(round * 100 + step)
        else await who.save()
      }
      // Both at once at the end: one of them finds the other's.
      await Promise.all([ines.save(), tarn.save()])
      const { document } = (await server.ask<PageDocument>(`/api/sites/tarrowmoor/pages/${id}`)).body
      expect(subtreeIds(document, document.root).length).toBe(Object.keys(document.nodes).length)
    }
    // Otherwise the two never met, and nothing was tried.
    expect(ines.merges + tarn.merges).toBeGreaterThan(INTERLEAVINGS / 2)
    expect(ines.shown.length + tarn.shown.length).toBeGreaterThan(10)
  },
  timesOf(600_000, 14_400_000),
)
