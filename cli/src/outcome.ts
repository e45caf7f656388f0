/** How a command ended; its value is the exit code. */
export const EXIT = { done: 0, findings: 1, unusable: 2 } as const
export type Exit = (typeof EXIT)[keyof typeof EXIT]

/** What a command prints: results to `out`, reasons and hints to `error`. */
export interface Streams {
  readonly out: (text: string) => void
  readonly error: (text: string) => void
}

/** Input that can't be used, with all reasons, a line each. */
export class Unusable extends Error {
  constructor(...reasons: readonly string[]) {
    super(reasons.join('\n'))
  }
}
