import { join } from 'node:path'
import { destination, type DestinationStream } from 'pino'
import { makeFolder } from './make-folder.ts'

/** The log of a data folder, open to nobody else: a line of JSON for each event. */
export async function logFile(dataDir: string): Promise<DestinationStream> {
  const folder = join(dataDir, 'log')
  await makeFolder(folder, 0o700)
  return destination({ dest: join(folder, 'gullyline.log'), mode: 0o600, sync: true })
}
