import type { Context } from 'hono'
import type { KnownRevisions, RevisionName } from '../db/revisions.ts'
import { listsTag } from './etag.ts'

interface Kept {
  readonly revision: string
  readonly json: Promise<string>
}

/** Answers as the bytes they were, each with the revision of what it tells: given again only while that is the same. */
export class CachedAnswers {
  readonly #answers = new Map<string, Kept>()
  /** Enough for the pages that people work on at a time; more would only hold memory. */
  readonly #most = 200

  /** Returns the answer of that name as JSON, made by `make` when it is not kept of this revision. What fails is not kept. */
  get(name: string, revision: string, make: () => Promise<unknown>): Promise<string> {
    const kept = this.#answers.get(name)
    if (kept?.revision === revision) return kept.json
    if (!kept && this.#answers.size >= this.#most) this.#answers.clear()
    const json = make().then((value) => JSON.stringify(value))
    const made = { revision, json }
    this.#answers.set(name, made)
    json.catch(() => this.#answers.get(name) === made && this.#answers.delete(name))
    return json
  }
}

type AfterGate = { readonly Variables: { readonly revisions: KnownRevisions } }

interface Answering {
  readonly answers: CachedAnswers
  /** Tells this program from one that makes other answers of the same data. */
  readonly program: string
}

/**
 * Answers a request with what is kept under its path, or with nothing where the browser has it already (RFC 9110, 8.8.3
 * and 15.4.5). `of` names everything that the answer tells of.
 */
export async function answerCached<E extends AfterGate>(
  context: Context<E>,
  { answers, program }: Answering,
  of: readonly RevisionName[],
  make: () => Promise<unknown>,
): Promise<Response> {
  const revisions = context.get('revisions') as KnownRevisions
  const revision = of.map((name) => revisions.get(name) ?? '').join('-')
  const etag = `"${revision}-${program}"`
  // Browsers ask each time, and only this person's may keep it.
  const headers = { ETag: etag, 'Cache-Control': 'private, no-cache', Vary: 'Cookie' }
  if (listsTag(context.req.header('if-none-match') ?? '', new Set([etag])))
    return context.body(null, 304, headers)
  const json = await answers.get(context.req.path, revision, make)
  return context.body(json, 200, { 'Content-Type': 'application/json', ...headers })
}
