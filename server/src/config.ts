import { resolve } from 'node:path'

export interface Config {
  readonly editorPort: number
  readonly sitePort: number
  /** Where media, fonts and published files are kept. */
  readonly dataDir: string
  readonly databaseUrl: string
  /** The built editor; absent while Vite serves it. */
  readonly webDir: string | undefined
  /** Whether an empty database gets the sample site and its accounts, or a site with one empty page and none. */
  readonly withDemo: boolean
  /** How hard the sample pictures are squeezed; see `derivePicture`. Tests take the quickest. */
  readonly pictureEffort: number | undefined
}

/** Reads the configuration from environment variables. Throws one Error that names everything wrong with them. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const faults: string[] = []
  const port = (name: string, initial: number): number => {
    const value = env[name] === undefined ? initial : Number(env[name])
    if (!Number.isInteger(value) || value < 1 || value > 65535)
      faults.push(`${name} must be a port from 1 to 65535, got "${env[name]}"`)
    return value
  }
  const text = (name: string): string => {
    const value = env[name]
    if (!value) faults.push(`${name} is not set; "npm start" sets it`)
    return value ?? ''
  }
  const config: Config = {
    editorPort: port('GULLYLINE_EDITOR_PORT', 4180),
    sitePort: port('GULLYLINE_SITE_PORT', 4181),
    dataDir: resolve(text('GULLYLINE_DATA')),
    databaseUrl: text('GULLYLINE_DATABASE_URL'),
    withDemo: env.GULLYLINE_DEMO !== 'no',
    pictureEffort: env.GULLYLINE_PICTURE_EFFORT ? Number(env.GULLYLINE_PICTURE_EFFORT) : undefined,
    webDir: env.GULLYLINE_WEB_DIR ? resolve(env.GULLYLINE_WEB_DIR) : undefined,
  }
  if (faults.length > 0) throw new Error(`The configuration can't be used: ${faults.join('; ')}.`)
  return config
}
