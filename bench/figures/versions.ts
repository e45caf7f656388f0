import { applyEdit, defaultRegistry as registry, type Page } from '@gullyline/core'
import { packState, unpackDelta, unpackWhole, type WholeState } from '../../server/src/documents/states.ts'
import { figureOf, median, type Figure } from '../measure.ts'
import { pageOf } from '../thousand-nodes.ts'

const NODES = 1_000
const SAVES = 1_000
const READS = 60

interface Stored {
  readonly state: Buffer
  /** What it is stored as a difference from; undefined for a whole state. */
  readonly whole: Buffer | undefined
}

/**
 * (u): what 1,000 saves that each change one word of a page of 1,000 blocks are stored in, against as many copies of it;
 * (v): reading such a version, against reading one that is stored whole.
 */
export async function versionFigures(): Promise<Figure[]> {
  const headings = Object.entries(pageOf(NODES).nodes).flatMap(([id, { kind }]) =>
    kind === 'heading' ? [id] : [],
  )
  let page = pageOf(NODES)
  let whole: (WholeState & { readonly state: Buffer }) | undefined
  const versions: Stored[] = []
  let copies = 0
  for (let number = 0; number < SAVES; number++) {
    page = reworded(page, headings[(number * 37) % headings.length]!, number)
    copies += Buffer.byteLength(JSON.stringify(page))
    const { base, state } = await packState(page, whole)
    if (base === null) whole = { number, bytes: state.length, document: page, state }
    versions.push({ state, whole: base === null ? undefined : whole!.state })
  }
  const stored = versions.reduce((sum, { state }) => sum + state.length, 0)
  const about = `${SAVES} saves of one word on ${NODES} nodes, against as many copies`
  const kilobytes = { ours: stored / 1000, reference: copies / 1000 }
  return [figureOf('u', 0.02, about, kilobytes, 'kB'), await readingFigure(versions)]
}

function reworded(page: Page, nodeId: string, turn: number): Page {
  const value = `Words of save ${turn}`
  const applied = applyEdit(page, { edit: 'set', nodeId, at: ['content', 'text'], value }, registry)
  if (!applied.ok) throw new Error(applied.message)
  return applied.page
}

async function readingFigure(versions: readonly Stored[]): Promise<Figure> {
  const differences = versions.filter(({ whole }) => whole !== undefined)
  const times = { ours: [] as number[], reference: [] as number[] }
  for (let i = 0; i < READS; i++) {
    const { state, whole } = differences[(i * 101) % differences.length]!
    times.ours.push(await timeOf(async () => unpackDelta(state, await unpackWhole(whole!))))
    times.reference.push(await timeOf(() => unpackWhole(whole!)))
  }
  const medians = { ours: median(times.ours), reference: median(times.reference) }
  return figureOf('v', 3, `Reading a version of ${NODES} nodes, against one that is stored whole`, medians)
}

async function timeOf(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now()
  await work()
  return performance.now() - start
}
