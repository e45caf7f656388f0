/** Packages that strangers may have made: refused whole, with the reason, within two seconds and with nothing changed. */
import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { ZipFile } from 'yazl'
import { patienceOf } from '../../scripts/lib/patience.mjs'
import {
  defaultRegistry,
  getKind,
  newNode,
  type ErrorBody,
  type JsonObject,
  type Library,
  type PageNode,
  type SiteInfo,
  type SitePackage,
} from '@gullyline/core'
import { packageBytes } from '../src/exchange/export-package.ts'
import { digest, FIRST, startWithPackages } from './with-packages.ts'

let at: Awaited<ReturnType<typeof startWithPackages>>
beforeAll(async () => {
  at = await startWithPackages()
})
afterAll(() => at.server.close())

/** Packages on the disk that were sent and are not imported. */
function waiting(): string[] {
  const folder = join(at.server.services.dataDir, 'imports')
  return existsSync(folder) ? readdirSync(folder) : []
}

const node = (kind: string, content: JsonObject, slots: PageNode['slots'] = {}): PageNode =>
  newNode(getKind(defaultRegistry, kind), { content, slots })

/** A package with one pattern, into which faults are put. */
async function small(): Promise<{ readonly given: SitePackage; readonly picture: Buffer }> {
  const look = (await at.server.ask<SiteInfo>(FIRST)).body.look
  const picture = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="9" height="9"></rect></svg>',
  )
  const nodes = {
    root: node('pattern', {}, { blocks: ['one'] }),
    one: node('picture', { media: { id: 'pic' } }),
  }
  const document = { format: 4, root: 'root', nodes } as const
  return {
    picture,
    given: {
      format: 'gullyline-site-package/1',
      look,
      parts: { pat: { type: 'pattern', name: 'Small', purpose: 'other', about: '', document } },
      pages: [],
      pictures: {
        pic: { name: 'A.svg', alt: 'A', isDecoration: false, digest: digest(picture), bytes: picture.length },
      },
      files: {},
    },
  }
}

interface Zipped {
  readonly name: string
  readonly bytes: Buffer
  readonly mode?: number
}

function zip(entries: readonly Zipped[]): Promise<Buffer> {
  const file = new ZipFile()
  for (const { name, bytes, mode = 0o100644 } of entries) file.addBuffer(bytes, name, { mode })
  file.end()
  return packageBytes(file.outputStream as never)
}

const json = (value: unknown): Zipped => ({ name: 'package.json', bytes: Buffer.from(JSON.stringify(value)) })

describe('refused whole, with the reason and nothing changed, is', () => {
  const withPart = (given: SitePackage, change: (nodes: Record<string, PageNode>) => object): SitePackage => {
    const part = given.parts.pat!
    const nodes = { ...part.document.nodes, ...change({ ...part.document.nodes }) }
    return { ...given, parts: { pat: { ...part, document: { ...part.document, nodes } } } }
  }
  const medium = (bytes: Buffer): Zipped => ({ name: 'pictures/pic', bytes })
  type Fault = (good: Awaited<ReturnType<typeof small>>) => Promise<Buffer> | Buffer
  const faults: Readonly<Record<string, readonly [Fault, string]>> = {
    'what is no zip file': [() => Buffer.from('PK not really'), 'no zip file'],
    'a zip file of something else': [
      () => zip([{ name: 'readme.txt', bytes: Buffer.from('x') }]),
      'no package of Gullyline',
    ],
    'JSON that is none': [() => zip([{ name: 'package.json', bytes: Buffer.from('{') }]), 'not JSON'],
    'JSON nested very deep': [
      () => zip([{ name: 'package.json', bytes: Buffer.from('['.repeat(100_000) + ']'.repeat(100_000)) }]),
      'nested more than',
    ],
    'another format': [
      ({ given, picture }) => zip([json({ ...given, format: 'gullyline-site-package/2' }), medium(picture)]),
      '/format',
    ],
    'an unknown field': [
      ({ given, picture }) => zip([json({ ...given, extra: 1 }), medium(picture)]),
      'package.json',
    ],
    'an unknown kind of block': [
      ({ given, picture }) =>
        zip([json(withPart(given, ({ one }) => ({ one: { ...one!, kind: 'rocket' } }))), medium(picture)]),
      'unknown block kind',
    ],
    'a script in a link': [
      ({ given, picture }) =>
        zip([
          json(
            withPart(given, () => ({
              one: node('text', {
                words: [{ type: 'paragraph', runs: [{ text: 'x', link: { href: 'x' } }] }],
              }),
              two: { ...node('heading', {}), content: { text: '<script>', level: 9 } },
              root: node('pattern', {}, { blocks: ['one', 'two'] }),
            })),
          ),
          medium(picture),
        ]),
      '/nodes/two',
    ],
    'a hundred thousand blocks': [
      ({ given, picture }) => {
        const many = Object.fromEntries(Array.from({ length: 100_000 }, (_, i) => [`n${i}`, {}]))
        return zip([json(withPart(given, () => many)), medium(picture)])
      },
      'at most 20000 nodes',
    ],
    'a ring of parts': [
      ({ given }) => {
        const ring = (id: string, other: string) => ({
          type: 'shared' as const,
          name: id,
          purpose: 'other' as const,
          about: '',
          document: {
            format: 4 as const,
            root: id,
            nodes: {
              [id]: node('shared-blocks', {}, { blocks: [`${id}i`] }),
              [`${id}i`]: node('linked-blocks', { part: other }),
            },
          },
        })
        return zip([json({ ...given, pictures: {}, parts: { pa: ring('pa', 'pb'), pb: ring('pb', 'pa') } })])
      },
      'stands in itself',
    ],
    'a part that is not there': [
      ({ given, picture }) =>
        zip([
          json(withPart(given, () => ({ one: node('linked-blocks', { part: 'gone' }) }))),
          medium(picture),
        ]),
      'shows the part "gone"',
    ],
    'a picture that is not there': [({ given }) => zip([json(given)]), 'is missing in it'],
    'another picture than it says': [
      ({ given, picture }) =>
        zip([json(given), medium(Buffer.from(picture.toString().replace('rect', 'path')))]),
      'is not the one',
    ],
    'a picture larger than it says': [
      ({ given, picture }) => zip([json(given), medium(Buffer.concat([picture, picture]))]),
      'larger than it says',
    ],
    'a drawing with a script': [
      ({ given, picture }) => {
        const bad = Buffer.from(picture.toString().replace('<rect', '<script>alert(1)</script><rect'))
        const pic = { ...given.pictures.pic!, digest: digest(bad), bytes: bad.length }
        return zip([json({ ...given, pictures: { pic } }), medium(bad)])
      },
      'could run',
    ],
    'a file that belongs to nothing': [
      ({ given, picture }) =>
        zip([json(given), medium(picture), { name: 'evil.sh', bytes: Buffer.from('x') }]),
      'belongs to nothing',
    ],
    'a symbolic link': [
      ({ given, picture }) => zip([json(given), { ...medium(picture), mode: 0o120777 }]),
      'no plain file',
    ],
    'two files of one name': [
      ({ given, picture }) => zip([json(given), medium(picture), medium(picture)]),
      'two files called',
    ],
    'a path that climbs out': [
      async ({ given, picture }) => {
        const bytes = await zip([
          json(given),
          medium(picture),
          { name: 'xx/climbing', bytes: Buffer.from('x') },
        ])
        return Buffer.from(bytes.toString('latin1').replaceAll('xx/climbing', '../climbing'), 'latin1')
      },
      'can’t be imported',
    ],
    'a bomb': [
      async ({ given }) => {
        const bytes = await zip([
          json(given),
          { name: 'pictures/pic', bytes: Buffer.alloc(32 * 1024 * 1024) },
        ])
        expect(bytes.length).toBeLessThan(1024 * 1024)
        return bytes
      },
      'larger than it says',
    ],
  }

  test.each(Object.keys(faults))('%s', async (name) => {
    const [fault, reason] = faults[name]!
    const site = await ownSite()
    const before = await stateOf(site)
    const bytes = await fault(await small())
    const still = waiting()
    const start = performance.now()
    const sent = await at.send(bytes, site)
    let refused: ErrorBody = sent.body
    if (sent.status === 201) {
      const url = `${site}/imports/${sent.body.id}`
      refused = (await at.server.ask(url, { method: 'POST', body: { choices: {}, surfaces: {} } })).body
    }
    const took = performance.now() - start
    expect(took).toBeLessThan(patienceOf(2_000, took))
    expect(
      [refused.message, ...refused.problems.map(({ pointer, message }) => `${pointer} ${message}`)].join(' '),
    ).toContain(reason)
    expect(refused.message).toContain('Nothing was')
    expect(await stateOf(site)).toEqual(before)
    // A package that is refused as it comes is removed at once; one that can be tried again, when it is dropped.
    if (sent.status === 201) await at.server.ask(`${site}/imports/${sent.body.id}`, { method: 'DELETE' })
    expect(waiting()).toEqual(still)
  })

  test('and what is right is taken', async () => {
    const { given, picture } = await small()
    const site = await ownSite()
    await at.imported(await zip([json(given), medium(picture)]), site)
    expect((await at.partsOf(site)).map(({ name }) => name)).toEqual(['Small'])
  })

  let own: string | undefined
  const ownSite = async (): Promise<string> => (own ??= await at.emptySite())
})

async function stateOf(site: string) {
  return [
    await at.partsOf(site),
    await at.pagesOf(site),
    (await at.server.ask<Library>(`${site}/library`)).body,
    readdirSync(join(at.server.services.dataDir, 'media')),
    readdirSync(join(at.server.services.dataDir, 'originals'), { recursive: true }),
  ]
}
