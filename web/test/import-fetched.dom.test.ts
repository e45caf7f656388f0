/** A module is imported once all of its files are there, and never before: a browser may remember one that could not be had. */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { importFetched } from '../src/ui/import-fetched.ts'

const MODULE = { name: 'the module' }
const load = jest.fn(() => Promise.resolve(MODULE))

beforeEach(() => {
  load.mockClear()
})
afterEach(() => {
  document.head.innerHTML = ''
})

/** No two tests may share a file: what was fetched once is there for good. */
let names = 0
const file = (): string => `assets/part-${names++}.js`

/** The documents of the frames in which scripts are fetched. */
const asides = (): Document[] =>
  [...document.querySelectorAll('iframe')].map(({ contentDocument }) => contentDocument!)
const answered = new WeakSet<HTMLLinkElement>()
/** What is being asked for. */
const asked = (): HTMLLinkElement[] =>
  [document, ...asides()]
    .flatMap((one) => [...one.querySelectorAll<HTMLLinkElement>('link[rel]')])
    .filter((link) => !answered.has(link))
const addresses = (): string[] => asked().map((link) => link.getAttribute('href')!)

/** What a browser does: this document has no network. */
async function answer(name: string, how: 'load' | 'error'): Promise<void> {
  const link = asked().find((one) => one.getAttribute('href') === `/${name}`)!
  answered.add(link)
  link.dispatchEvent(new Event(how))
  await settled()
}
const settled = () => new Promise((resolve) => setTimeout(resolve))

test('a module is imported when all of its files are there', async () => {
  const [own, shared] = [file(), file()]
  const coming = importFetched(load, [own, shared])
  expect(addresses()).toEqual([`/${own}`, `/${shared}`])
  await answer(shared, 'load')
  expect(load).not.toHaveBeenCalled()
  await answer(own, 'load')
  await expect(coming).resolves.toBe(MODULE)
})

test('files are fetched out of sight, as modules are, and nothing stays of it', async () => {
  const name = file()
  const coming = importFetched(load, [name])
  expect(document.querySelector('iframe')!.hidden).toBe(true)
  expect(document.head.querySelector('link')).toBeNull()
  expect(asked()).toMatchObject([{ rel: 'preload', as: 'script', crossOrigin: 'anonymous' }])
  await answer(name, 'load')
  await coming
  expect(asides()).toHaveLength(0)
})

test('a module is not imported while a file of it can’t be had, and asking again fetches that file again', async () => {
  const [own, shared] = [file(), file()]
  const failing = importFetched(load, [own, shared])
  const refused = expect(failing).rejects.toThrow(TypeError)
  await answer(own, 'load')
  await answer(shared, 'error')
  await refused
  expect(load).not.toHaveBeenCalled()
  const coming = importFetched(load, [own, shared])
  expect(addresses()).toEqual([`/${shared}`])
  await answer(shared, 'load')
  await expect(coming).resolves.toBe(MODULE)
})

test('a file is never asked for again in the document that could not have it', async () => {
  const [failing, waiting] = [file(), file()]
  const first = expect(importFetched(load, [failing])).rejects.toThrow(TypeError)
  const other = importFetched(load, [waiting])
  const [before] = asides()
  await answer(failing, 'error')
  await first
  const again = importFetched(load, [failing])
  expect(before!.querySelector(`link[href="/${failing}"]`)).toBeNull()
  expect(asides()).toHaveLength(2)
  await answer(failing, 'load')
  await answer(waiting, 'load')
  await expect(Promise.all([other, again])).resolves.toEqual([MODULE, MODULE])
  expect(asides()).toHaveLength(0)
})

test('a file that several modules are made of is fetched once', async () => {
  const [own, shared] = [file(), file()]
  const coming = Promise.all([importFetched(load, [own, shared]), importFetched(load, [shared])])
  expect(addresses()).toEqual([`/${own}`, `/${shared}`])
  await answer(own, 'load')
  await answer(shared, 'load')
  await coming
  await importFetched(load, [shared])
  expect(load).toHaveBeenCalledTimes(3)
})

test('what the page names is not fetched again', async () => {
  const [script, ahead] = [file(), file()]
  document.head.innerHTML = `<script src="/${script}"></script><link rel="modulepreload" href="/${ahead}">`
  await importFetched(load, [script, ahead])
  expect(asides()).toHaveLength(0)
})

test('a module waits for its styles, and asking again asks for those that could not be had', async () => {
  const styles = file().replace('.js', '.css')
  const links = () => document.querySelectorAll(`link[rel="stylesheet"][href="/${styles}"]`)
  const failing = expect(importFetched(load, [styles])).rejects.toThrow(TypeError)
  await answer(styles, 'error')
  await failing
  const coming = importFetched(load, [styles])
  await settled()
  expect(links()).toHaveLength(1)
  expect(load).not.toHaveBeenCalled()
  await answer(styles, 'load')
  await expect(coming).resolves.toBe(MODULE)
})
