/** A module is imported once all of its files are there, and never before: a browser may remember one that could not be had. */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { importFetched } from '../src/ui/import-fetched.ts'

const MODULE = { name: 'the module' }
const load = jest.fn(() => Promise.resolve(MODULE))
/** The addresses that were fetched, in their order. */
let fetched: string[]
/** What is the matter with the file of an address; without one it is there. */
let faults: Map<string, 'unreachable' | 'missing' | 'broken off'>

beforeEach(() => {
  load.mockClear()
  fetched = []
  faults = new Map()
  const answer = (address: string): Promise<unknown> => {
    fetched.push(address)
    const fault = faults.get(address)
    if (fault === 'unreachable') return Promise.reject(new TypeError('Failed to fetch'))
    const read = (): Promise<ArrayBuffer> =>
      fault === 'broken off'
        ? Promise.reject(new TypeError('network error'))
        : Promise.resolve(new ArrayBuffer(8))
    return Promise.resolve({ ok: fault !== 'missing', arrayBuffer: read })
  }
  globalThis.fetch = answer as unknown as typeof fetch
})
afterEach(() => {
  document.head.innerHTML = ''
})

/** No two tests may share a file: what was fetched once is there for good. */
let names = 0
const file = (): string => `assets/part-${names++}.js`

test('a module is imported when all of its files are there', async () => {
  const files = [file(), file()]
  await expect(importFetched(load, files)).resolves.toBe(MODULE)
  expect(fetched).toEqual(files.map((one) => `/${one}`))
})

test.each(['unreachable', 'missing', 'broken off'] as const)(
  'a module is not imported while a file of it is %s, and asking again fetches that file again',
  async (fault) => {
    const [own, shared] = [file(), file()]
    faults.set(`/${shared}`, fault)
    await expect(importFetched(load, [own, shared])).rejects.toThrow(TypeError)
    expect(load).not.toHaveBeenCalled()
    faults.clear()
    await expect(importFetched(load, [own, shared])).resolves.toBe(MODULE)
    expect(fetched).toEqual([own, shared, shared].map((one) => `/${one}`))
  },
)

test('a file that several modules are made of is fetched once', async () => {
  const shared = file()
  await Promise.all([importFetched(load, [file(), shared]), importFetched(load, [shared])])
  await importFetched(load, [shared])
  expect(fetched.filter((one) => one === `/${shared}`)).toHaveLength(1)
  expect(load).toHaveBeenCalledTimes(3)
})

test('what the page names is not fetched again', async () => {
  const [script, ahead] = [file(), file()]
  document.head.innerHTML = `<script src="/${script}"></script><link rel="modulepreload" href="/${ahead}">`
  await importFetched(load, [script, ahead])
  expect(fetched).toEqual([])
})

test('a module waits for its styles, and asking again asks for those that could not be had', async () => {
  const styles = file().replace('.js', '.css')
  const links = () => document.querySelectorAll(`link[rel="stylesheet"][href="/${styles}"]`)
  const failing = importFetched(load, [styles])
  links()[0]!.dispatchEvent(new Event('error'))
  await expect(failing).rejects.toThrow(TypeError)
  const coming = importFetched(load, [styles])
  await new Promise((resolve) => setTimeout(resolve))
  expect(links()).toHaveLength(1)
  expect(load).not.toHaveBeenCalled()
  links()[0]!.dispatchEvent(new Event('load'))
  await expect(coming).resolves.toBe(MODULE)
})
