import type { Context } from 'hono'

/** Answers that stay true until something is written: made once, then given as the bytes they were. */
export class CachedAnswers {
  readonly #answers = new Map<string, Promise<string>>()
  /** Enough for the pages that people work on at a time; more would only hold memory. */
  readonly #most = 200

  /** The answer of that name as JSON, made by `make` when it is not kept. What fails is not kept. */
  get(name: string, make: () => Promise<unknown>): Promise<string> {
    const kept = this.#answers.get(name)
    if (kept) return kept
    if (this.#answers.size >= this.#most) this.#answers.clear()
    const answer = make().then((value) => JSON.stringify(value))
    this.#answers.set(name, answer)
    answer.catch(() => this.#answers.get(name) === answer && this.#answers.delete(name))
    return answer
  }

  /** To be called after every write has been committed and before it is answered. */
  forgetAll(): void {
    this.#answers.clear()
  }
}

/** Answers a request with what is kept under its path. */
export async function answerCached(
  context: Context,
  { answers }: { readonly answers: CachedAnswers },
  make: () => Promise<unknown>,
): Promise<Response> {
  const json = await answers.get(context.req.path, make)
  return context.body(json, 200, { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' })
}
