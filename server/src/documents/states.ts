/**
 * How a version is stored: its whole state, or what it differs in from one that is stored whole, so that disk use follows
 * the size of the change and reading takes two rows at most. Both as JSON, compressed (RFC 1951, "deflate").
 */
import { promisify } from 'node:util'
import { deflateRaw, inflateRaw } from 'node:zlib'
import { deltaBetween, withDelta, type Page, type PageDelta } from '@gullyline/core'

const deflate = promisify(deflateRaw)
const inflate = promisify<Buffer, { maxOutputLength: number }, Buffer>(inflateRaw)

/** Larger than any request can bring: what inflates to more was not written by this program. */
const MOST_BYTES = 64 * 1024 * 1024
/**
 * A difference may be this share of the whole state. Differences grow with each save, as more of the document is another
 * than the one they are taken from, so a whole state is stored again before they cost more than it.
 */
const MOST_OF_WHOLE = 1 / 8

export interface StoredState {
  /** The number of the version that this one is a difference from; null for a whole state. */
  readonly base: number | null
  readonly state: Buffer
}

/** A version that is stored whole. */
export interface WholeState {
  readonly number: number
  /** How many bytes it is stored in. */
  readonly bytes: number
  readonly document: Page
}

/** Stores a state, as a difference from `whole` where that is much smaller. */
export async function packState(document: Page, whole: WholeState | undefined): Promise<StoredState> {
  if (whole) {
    const state = await pack(deltaBetween(whole.document, document))
    if (state.length <= whole.bytes * MOST_OF_WHOLE) return { base: whole.number, state }
  }
  return { base: null, state: await pack(document) }
}

/** Reads a whole state as it was saved, in whatever format. */
export async function unpackWhole(state: Buffer): Promise<Page> {
  return (await unpack(state)) as Page
}

/** Reads a state that is stored as a difference from `whole`. */
export async function unpackDelta(state: Buffer, whole: Page): Promise<Page> {
  return withDelta(whole, (await unpack(state)) as PageDelta)
}

async function pack(value: Page | PageDelta): Promise<Buffer> {
  return deflate(Buffer.from(JSON.stringify(value)))
}

async function unpack(state: Buffer): Promise<unknown> {
  return JSON.parse((await inflate(state, { maxOutputLength: MOST_BYTES })).toString())
}
