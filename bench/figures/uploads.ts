import { readFileSync } from 'node:fs'
import sharp from 'sharp'
import type { Application } from '../application.ts'
import { figureOf, type Figure } from '../measure.ts'

const PICTURES = 50
const WIDTH = 4_000
const HEIGHT = 3_000
/** As many as the editor sends. */
const AT_ONCE = 2
const GIB = 1024 ** 3

/** (n): the most memory that the server ever held while 50 pictures of 12 megapixels were uploaded, against 1 GiB. */
export async function uploadsFigure(app: Application): Promise<Figure> {
  const grain = await sharp({
    create: {
      width: WIDTH,
      height: HEIGHT,
      channels: 3,
      background: '#567',
      noise: { type: 'gaussian', mean: 120, sigma: 30 },
    },
  })
    .jpeg({ quality: 80 })
    .toBuffer()
  const pending = Array.from({ length: PICTURES }, (_unused, i) => i)
  const send = async (): Promise<void> => {
    for (let n = pending.pop(); n !== undefined; n = pending.pop()) {
      // A comment at the end makes each another file.
      const body = Buffer.concat([grain, Buffer.from(`picture ${n}`)])
      const answer = await fetch(`${app.editor}/api/sites/tarrowmoor/media?name=grain-${n}.jpg`, {
        method: 'POST',
        headers: { cookie: app.cookie, 'content-type': 'application/octet-stream' },
        body,
      })
      if (!answer.ok) throw new Error(`Picture ${n}: ${await answer.text()}`)
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, send))
  const figure = { ours: peakBytes(app.serverPid) / GIB, reference: 1 }
  return figureOf('n', 1, `The server’s memory at its most while ${PICTURES} pictures came`, figure, 'GiB')
}

/** The most that a process ever had in memory, in bytes: VmHWM of proc(5). */
export function peakBytes(pid: number): number {
  const status = readFileSync(`/proc/${pid}/status`, 'utf8')
  return Number(/^VmHWM:\s+(\d+) kB$/m.exec(status)![1]) * 1024
}
