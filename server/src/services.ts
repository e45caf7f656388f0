import type { Logger } from 'pino'
import type { DataSource } from 'typeorm'
import { KeptAnswers } from './http/kept-answers.ts'
import { Sessions } from './people/sessions.ts'
import { Presence } from './presence/presence.ts'

/** What routes and rules are given to work with. */
export interface Services {
  readonly db: DataSource
  readonly log: Logger
  /** Where media, fonts and published files are kept. */
  readonly dataDir: string
  /** Where visitors see the site, without a slash at the end. */
  readonly liveOrigin: string
  readonly sessions: Sessions
  readonly presence: Presence
  readonly kept: KeptAnswers
}

/** The services of one running server, over what it was started with. */
export function makeServices(given: Pick<Services, 'db' | 'log' | 'dataDir' | 'liveOrigin'>): Services {
  return { ...given, sessions: new Sessions(given.db), presence: new Presence(), kept: new KeptAnswers() }
}
