import { existsSync } from 'node:fs'
import { mkdir, mkdtemp, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { ensureMade } from '../lib/made.mjs'

let home: string
let times: number
beforeEach(async () => {
  home = await mkdtemp(join(tmpdir(), 'gullyline-made-'))
  times = 0
  await mkdir(join(home, 'src/within'), { recursive: true })
  await writeFile(join(home, 'src/within/words.txt'), 'first')
})
afterEach(() => rm(home, { recursive: true }))

const made = () => join(home, 'dist')
const words = () => readFile(join(made(), 'words.txt'), 'utf8')

/** Copies the words, and meanwhile does what is asked. */
function ensure(meanwhile: () => Promise<void> = () => Promise.resolve()): Promise<void> {
  return ensureMade(made(), [join(home, 'src')], async (folder) => {
    times++
    await writeFile(join(folder, 'words.txt'), await readFile(join(home, 'src/within/words.txt')))
    await meanwhile()
  })
}

test('it is made once, and again when a file has changed, is new or is gone', async () => {
  await ensure()
  await ensure()
  expect(times).toBe(1)
  await writeFile(join(home, 'src/within/words.txt'), 'second')
  await ensure()
  expect(await words()).toBe('second')
  await writeFile(join(home, 'src/more.txt'), '')
  await ensure()
  await rm(join(home, 'src/more.txt'))
  await ensure()
  expect(times).toBe(4)
})

test('neither times nor what tools keep beside the files make it anew', async () => {
  await ensure()
  const later = new Date(Date.now() + 3_600_000)
  await utimes(join(home, 'src/within/words.txt'), later, later)
  await mkdir(join(home, 'src/.tsc'))
  await writeFile(join(home, 'src/.tsc/words.d.ts'), 'export {}')
  await ensure()
  expect(times).toBe(1)
})

test('while it is made again the old one stands, and nothing else is left', async () => {
  await ensure()
  await writeFile(join(home, 'src/within/words.txt'), 'second')
  await ensure(async () => expect(await words()).toBe('first'))
  expect(await words()).toBe('second')
  expect((await readdir(home)).sort()).toEqual(['dist', 'src'])
})

test('two that make it at once both succeed, and what was interrupted long ago is removed', async () => {
  const left = join(home, 'dist-next-left')
  await mkdir(left)
  const longAgo = new Date(Date.now() - 7_200_000)
  await utimes(left, longAgo, longAgo)
  await mkdir(join(home, 'dist-next-now'))
  let both = 0
  let areBoth = (): void => undefined
  const met = new Promise<void>((resolve) => (areBoth = resolve))
  const meet = (): Promise<void> => {
    if (++both === 2) areBoth()
    return met
  }
  await Promise.all([ensure(meet), ensure(meet)])
  expect(times).toBe(2)
  expect(await words()).toBe('first')
  expect((await readdir(home)).sort()).toEqual(['dist', 'dist-next-now', 'src'])
})

test('when making fails the old one stands, and it is tried again', async () => {
  await ensure()
  await writeFile(join(home, 'src/within/words.txt'), 'second')
  await expect(ensure(() => Promise.reject(new Error('No room')))).rejects.toThrow('No room')
  expect(await words()).toBe('first')
  expect((await readdir(home)).sort()).toEqual(['dist', 'src'])
  await ensure()
  expect(await words()).toBe('second')
  await rm(made(), { recursive: true })
  await ensure()
  expect(existsSync(made())).toBe(true)
})
