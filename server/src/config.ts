import { resolve } from 'node:path'
import type { DeviceConfig } from './devices/device-origins.ts'

export interface Config {
  readonly editorPort: number
  readonly sitePort: number
  /** Where pages are shown to other devices. */
  readonly devices: DeviceConfig
  /** The one address of the editor, and of the published site, as people reach them: without a slash at the end. */
  readonly editorOrigin: string
  readonly liveOrigin: string
  /** Where media, fonts and published files are kept. */
  readonly dataDir: string
  readonly databaseUrl: string
  /** The built editor; absent while Vite serves it. */
  readonly webDir: string | undefined
  /** Whether an empty database gets the sample site and its accounts, or a site with one empty page and none. */
  readonly withDemo: boolean
  /** Whether live pages are measured in the background. */
  readonly isSweeping: boolean
  /** How hard pictures are squeezed; see `derivePicture`. Tests take the quickest. */
  readonly pictureEffort: number | undefined
}

/** The same machine under another name, so that no cookie of the editor ever reaches the published site. */
const SITE_NAME = 'localhost'

function sameHost({ editorOrigin, liveOrigin }: Config): boolean {
  const hosts = [editorOrigin, liveOrigin].map((one) => URL.canParse(one) && new URL(one).hostname)
  return hosts[0] !== false && hosts[0] === hosts[1]
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
  const origin = (name: string, initial: string): string => {
    const value = env[name] ?? initial
    const url = URL.canParse(value) ? new URL(value) : undefined
    if (!url || !['http:', 'https:'].includes(url.protocol) || url.pathname !== '/')
      faults.push(`${name} must be an address such as https://edit.example, without a path, got "${value}"`)
    return url?.origin ?? value
  }
  const [editorPort, sitePort] = [port('GULLYLINE_EDITOR_PORT', 4180), port('GULLYLINE_SITE_PORT', 4181)]
  const config: Config = {
    editorPort,
    sitePort,
    devices: {
      port: port('GULLYLINE_DEVICE_PORT', 4184),
      isShared: env.GULLYLINE_DEVICES === 'yes',
      origin: env.GULLYLINE_DEVICE_ORIGIN ? origin('GULLYLINE_DEVICE_ORIGIN', '') : undefined,
    },
    editorOrigin: origin('GULLYLINE_EDITOR_ORIGIN', `http://127.0.0.1:${editorPort}`),
    liveOrigin: origin('GULLYLINE_SITE_ORIGIN', `http://${SITE_NAME}:${sitePort}`),
    dataDir: resolve(text('GULLYLINE_DATA')),
    databaseUrl: text('GULLYLINE_DATABASE_URL'),
    isSweeping: env.GULLYLINE_SWEEP !== 'no',
    withDemo: env.GULLYLINE_DEMO !== 'no',
    pictureEffort: env.GULLYLINE_PICTURE_EFFORT ? Number(env.GULLYLINE_PICTURE_EFFORT) : undefined,
    webDir: env.GULLYLINE_WEB_DIR ? resolve(env.GULLYLINE_WEB_DIR) : undefined,
  }
  if (sameHost(config))
    faults.push(
      'GULLYLINE_EDITOR_ORIGIN and GULLYLINE_SITE_ORIGIN must be on different hosts, since cookies know no ports (RFC 6265, 8.5)',
    )
  if (faults.length > 0) throw new Error(`The configuration can't be used: ${faults.join('; ')}.`)
  return config
}
