import { mkdir, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import {
  defaultRegistry,
  EXTENSIONS,
  packageContext,
  packagedFilePath,
  recordReads,
  renderPage,
} from '@gullyline/core'
import { fileAndOptions } from './arguments.ts'
import { EXIT, Unusable, type Exit, type Streams } from './outcome.ts'
import { readPackage } from './read-package.ts'

const USAGE = 'render FILE --out DIR'
const STYLESHEET = 'style.css'
const SCRIPT = 'script.js'

/** Writes the page and all it needs into a directory. Only what the page uses is written. */
export async function render(args: readonly string[], { out }: Streams): Promise<Exit> {
  const { file, values } = fileAndOptions(args, { out: { type: 'string' } }, USAGE)
  if (typeof values.out !== 'string') throw new Unusable(`usage: ${USAGE}`)
  const given = await readPackage(file)
  const recording = recordReads(packageContext(given))
  const { html, css, script } = renderPage(given, defaultRegistry, recording.context, (_content, type) => ({
    href: type === 'css' ? STYLESHEET : SCRIPT,
  }))
  const files = new Map<string, string | Buffer>([
    ['index.html', html],
    [STYLESHEET, css],
  ])
  if (script !== '') files.set(SCRIPT, script)
  const reads = new Set<string>(recording.reads())
  for (const [id, { type, data }] of Object.entries(given.media))
    if (reads.has(`picture:${id}`)) files.set(`media/${id}.${EXTENSIONS[type]}`, Buffer.from(data, 'base64'))
  for (const [id, { name, data }] of Object.entries(given.files ?? {}))
    if (reads.has(`file:${id}`)) files.set(packagedFilePath(id, name), Buffer.from(data, 'base64'))
  for (const [name, data] of Object.entries(given.fonts)) {
    if (css.includes(`fonts/${name}`)) files.set(`fonts/${name}`, Buffer.from(data, 'base64'))
  }
  for (const [path, content] of files) {
    const target = join(values.out, path)
    await mkdir(dirname(target), { recursive: true })
    await writeFile(target, content)
    out(`${path}\n`)
  }
  return EXIT.done
}
