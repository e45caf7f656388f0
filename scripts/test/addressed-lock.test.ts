import { readFileSync } from 'node:fs'
import { expect, test } from '@jest/globals'
import { withAddresses, type Lock } from '../lib/addressed-lock.mjs'

const REGISTRY = 'https://packages.test/all/'
const digest = { integrity: 'sha512-AAAA' }

/** The address that a package gets that stands at `path` in the lock file. */
function addressOf(path: string, one: object, registry = REGISTRY): string | undefined {
  return withAddresses({ packages: { [path]: one } }, registry).packages[path]?.resolved
}

test('a package is fetched from under its name, in the version of the lock file', () => {
  const one = { version: '4.0.1', ...digest }
  expect(addressOf('node_modules/plain', one)).toBe('https://packages.test/all/plain/-/plain-4.0.1.tgz')
  expect(addressOf('node_modules/@of/some', one)).toBe('https://packages.test/all/@of/some/-/some-4.0.1.tgz')
  expect(addressOf('core/node_modules/@of/some/node_modules/inner', one)).toBe(
    'https://packages.test/all/inner/-/inner-4.0.1.tgz',
  )
  expect(addressOf('node_modules/plain', one, 'https://packages.test')).toBe(
    'https://packages.test/plain/-/plain-4.0.1.tgz',
  )
})

test('a package that stands under another name is fetched by its own', () => {
  const one = { name: '@of/some', version: '2.0.0', ...digest }
  expect(addressOf('node_modules/some-of-before', one)).toBe(
    'https://packages.test/all/@of/some/-/some-2.0.0.tgz',
  )
})

test('our own folders and what has an address stay as they are', () => {
  const lock = {
    packages: {
      '': { name: 'a', version: '1.0.0' },
      core: { name: '@a/core', version: '1.0.0' },
      'node_modules/@a/core': { resolved: 'core', link: true },
      'node_modules/kept': { version: '1.0.0', resolved: 'https://elsewhere.test/kept.tgz', ...digest },
    },
  }
  expect(withAddresses(lock, REGISTRY)).toEqual(lock)
})

test('the lock file of this repository names no registry, and every package in it gets an address', () => {
  const lock = JSON.parse(readFileSync(new URL('../../package-lock.json', import.meta.url), 'utf8')) as Lock
  const addresses = ({ packages }: Lock) =>
    Object.values(packages).filter(
      ({ integrity, resolved }) => integrity !== undefined && resolved !== undefined,
    )
  expect(addresses(lock)).toEqual([])
  const { packages } = withAddresses(lock, REGISTRY)
  const fetched = Object.values(packages).filter(({ integrity }) => integrity !== undefined)
  expect(fetched.length).toBeGreaterThan(100)
  expect(new Set(fetched.map(({ resolved }) => resolved?.startsWith(REGISTRY)))).toEqual(new Set([true]))
})
