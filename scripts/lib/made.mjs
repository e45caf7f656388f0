/** What is made of other files, made again when those have changed. */
import { createHash } from 'node:crypto'
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { basename, dirname, join } from 'node:path'

/** Names the file beside what was made that says what it was made of. */
const MADE_OF = '.made-of'

/**
 * Makes a folder again if it was made of something else. It is made beside the old one, which then gives place to it as a
 * whole: a server that answers from the old one meanwhile never finds half of it.
 */
export async function ensureMade(folder, inputs, make) {
  const madeOf = fingerprintOf(inputs)
  if (isMadeOf(folder, madeOf)) return
  removeLeftovers(folder)
  const made = mkdtempSync(`${folder}-next-`)
  try {
    // Such a folder is its maker's alone, and another user may run the server.
    chmodSync(made, 0o755)
    await make(made)
    setMadeOf(made, madeOf)
    const old = mkdtempSync(`${folder}-old-`)
    if (existsSync(folder)) renameSync(folder, join(old, 'made'))
    putInPlace(made, folder, madeOf)
    rmSync(old, { recursive: true })
  } finally {
    rmSync(made, { recursive: true, force: true })
  }
}

/** Whoever made the same meanwhile has done this already. */
function putInPlace(made, folder, madeOf) {
  try {
    renameSync(made, folder)
  } catch (error) {
    if (!isMadeOf(folder, madeOf)) throw error
  }
}

/** What was interrupted left its folder. One that is younger may be another's who is still at it. */
const LEFT_AFTER_MS = 3_600_000

function removeLeftovers(folder) {
  const parent = dirname(folder)
  const begin = [`${basename(folder)}-next-`, `${basename(folder)}-old-`]
  for (const name of readdirSync(parent).filter((one) => begin.some((words) => one.startsWith(words)))) {
    const left = join(parent, name)
    if (Date.now() - statSync(left).mtimeMs > LEFT_AFTER_MS) rmSync(left, { recursive: true, force: true })
  }
}

export function isMadeOf(folder, fingerprint) {
  const said = join(folder, MADE_OF)
  return existsSync(said) && readFileSync(said, 'utf8') === fingerprint
}

export function setMadeOf(folder, fingerprint) {
  writeFileSync(join(folder, MADE_OF), fingerprint)
}

/**
 * A hash of the names and contents of all files under these paths. Not of their times: those of a checkout, and of a
 * clock that was set, say nothing of what a file holds.
 */
export function fingerprintOf(paths) {
  const hash = createHash('sha256')
  const add = (path, name) => {
    if (!existsSync(path)) return
    if (statSync(path).isDirectory()) {
      // What tools keep for themselves has a name with a dot first.
      const within = readdirSync(path).filter((one) => !one.startsWith('.'))
      for (const one of within.sort()) add(join(path, one), `${name}/${one}`)
      return
    }
    hash.update(`${name}\0${statSync(path).size}\0`).update(readFileSync(path))
  }
  for (const [i, path] of paths.entries()) add(path, String(i))
  return hash.digest('hex')
}
