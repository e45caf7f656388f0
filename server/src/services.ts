import type { Logger } from 'pino'
import type { DataSource } from 'typeorm'
import type { DeviceConfig } from './devices/device-origins.ts'
import { Revisions } from './db/revisions.ts'
import { CachedAnswers } from './http/cached-answers.ts'
import { programId } from './http/program-id.ts'
import { Sessions } from './people/sessions.ts'
import { Presence } from './presence/presence.ts'
import { KnownReleases } from './publish/known-releases.ts'

/** What routes and rules are given to work with. */
export interface Services {
  readonly db: DataSource
  readonly log: Logger
  /** Where media, fonts and published files are kept. */
  readonly dataDir: string
  /** Where visitors see the site, without a slash at the end. */
  readonly liveOrigin: string
  /** The one address of the editor, without a slash at the end; undefined answers to every name of this machine. */
  readonly editorOrigin: string | undefined
  /** Whether the editor is reached by https: then its cookie goes nowhere else. */
  readonly isSecure: boolean
  /** Passwords of the sample accounts by login, where they are not to be used: the editor can be reached from elsewhere. */
  readonly closedAccounts: Readonly<Record<string, string>>
  readonly revisions: Revisions
  readonly sessions: Sessions
  readonly presence: Presence
  readonly answers: CachedAnswers
  readonly releases: KnownReleases
  /** Whether live pages are measured in the background. */
  readonly isSweeping: boolean
  /** Where private addresses are found. */
  readonly devices: DeviceConfig
  /** How hard pictures are squeezed; see `derivePicture`. */
  readonly pictureEffort?: number | undefined
  /** Tells this program from every other version of it. */
  readonly program: string
}

interface Given extends Pick<Services, 'db' | 'log' | 'dataDir' | 'liveOrigin'> {
  readonly editorOrigin?: string | undefined
  readonly pictureEffort?: number | undefined
  readonly closedAccounts?: Readonly<Record<string, string>>
  readonly devices?: DeviceConfig
  readonly isSweeping?: boolean
}

/** Where nothing is started that listens for other devices. */
const NO_DEVICES: DeviceConfig = { port: 0, isShared: false, origin: undefined }

/** The services of one running server, over what it was started with. */
export function makeServices({
  db,
  log,
  dataDir,
  liveOrigin,
  editorOrigin,
  pictureEffort,
  closedAccounts = {},
  devices = NO_DEVICES,
  isSweeping = false,
}: Given): Services {
  return {
    db,
    log,
    dataDir,
    liveOrigin,
    editorOrigin,
    pictureEffort,
    closedAccounts,
    devices,
    isSweeping,
    isSecure: editorOrigin?.startsWith('https:') ?? false,
    revisions: new Revisions(db),
    sessions: new Sessions(db),
    presence: new Presence(db, log),
    answers: new CachedAnswers(),
    releases: new KnownReleases(),
    program: programId(),
  }
}
