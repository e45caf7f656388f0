/** Where private addresses are found. */
import { networkInterfaces } from 'node:os'

export interface DeviceConfig {
  readonly port: number
  /** Whether other devices on the network reach it: only where the start command was told so. */
  readonly isShared: boolean
  /** Its address as devices reach it, such as that of a proxy, without a slash at the end. */
  readonly origin: string | undefined
}

/** The origins of private addresses, best first. */
export function deviceOrigins({ port, isShared, origin }: DeviceConfig): readonly string[] {
  if (origin !== undefined) return [origin]
  const here = `http://localhost:${port}`
  if (!isShared) return [here]
  const found = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => `http://${address}:${port}`)
  return found.length > 0 ? found : [here]
}
