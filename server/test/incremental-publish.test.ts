/** Publishing makes only what changed: after any sequence of changes the site is the one that is compiled from nothing. */
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  PAGE_FORMAT,
  settingsOf,
  withSettings,
  type JsonObject,
  type Look,
  type NavigationItem,
  type Page,
  type PageNode,
  type PageSettings,
  type Picture,
} from '@gullyline/core'
import { demoSite } from '@gullyline/demo'
import { timesOf } from '../../scripts/lib/soak.mjs'
import { UNWATCHED } from '../src/http/progress.ts'
import { compileSite, type CompiledSite } from '../src/publish/compile-site.ts'
import type { LivePage, LiveSite } from '../src/publish/live-site.ts'
import { SharedMap } from '../src/publish/shared-map.ts'

let dataDir = ''
beforeAll(async () => {
  dataDir = await mkdtemp(join(tmpdir(), 'gullyline-incremental-'))
})
afterAll(() => rm(dataDir, { recursive: true, force: true }))

const IDS = ['home', 'about', 'people', 'hours', 'news'] as const
const PICTURES = ['dome', 'moon'] as const

interface ModelPage {
  parentId: string | null
  slug: string
  settings: Partial<PageSettings>
  words: string
  link: string
  picture: string
  version: number
  isLive: boolean
}

/** A site as its editors see it, changed in place. */
class Model {
  readonly pages = new Map<string, ModelPage>(
    IDS.map((id, i) => [
      id,
      {
        parentId: i > 1 ? 'about' : null,
        slug: i === 0 ? '' : id,
        // What changes of one that is in the navigation changes all pages.
        settings: { title: `Page ${id}`, description: '', inNavigation: i < 2 },
        words: id,
        link: IDS[(i + 1) % IDS.length]!,
        picture: PICTURES[i % PICTURES.length]!,
        version: 1,
        isLive: true,
      },
    ]),
  )
  readonly revisions = new Map<string, number>(PICTURES.map((id) => [id, 1]))
  name = 'Tarrowmoor'
  brand = 'Tarrowmoor'
  look = demoSite.look
  navigation: NavigationItem[] = []
  notFoundPageId: string | null = null
  /** Whether it says which pages are other ones than before. */
  isTold = false
  #last = new Map<string, LivePage>()
  #pages: readonly LivePage[] = []

  /** The site as it is read: a page that is what it was is the same object. */
  async live(): Promise<LiveSite> {
    const documents = new Map([...this.pages].map(([id, page]) => [id, documentOf(page)]))
    const pathOf = (id: string): string => {
      const { parentId, slug } = this.pages.get(id)!
      return `${parentId === null ? '/' : pathOf(parentId)}${slug === '' ? '' : `${slug}/`}`
    }
    const pages = [...this.pages].flatMap(([id, page]): LivePage[] => {
      if (!page.isLive) return []
      const settings = settingsOf(documents.get(id)!)
      return [
        {
          id,
          path: pathOf(id),
          parentId: page.parentId,
          version: page.version,
          title: settings.title || 'Untitled',
          settings,
          savedAt: new Date(page.version * 1000),
          isNotFound: id === this.notFoundPageId,
        },
      ]
    })
    const kept = pages.map((page) => {
      const last = this.#last.get(page.id)
      return last && JSON.stringify(last) === JSON.stringify(page) ? last : page
    })
    const since = this.#since(kept)
    this.#last = new Map(kept.map((page) => [page.id, page]))
    this.#pages = kept
    const { brand, name, look, navigation, notFoundPageId } = this
    return {
      site: {
        id: 's',
        host: null,
        name,
        language: 'en',
        look,
        headerId: 'header',
        footerId: 'footer',
        homePageId: 'home',
        notFoundPageId,
        icon: null,
        sharePicture: null,
        navigation,
        navigationLimit: 100,
        releaseId: null,
      },
      header: { version: 1, document: withBrand(demoSite.header, brand) },
      footer: { version: 1, document: demoSite.footer },
      tree: { change: 0, pages: [] },
      pages: kept,
      byId: SharedMap.of(kept.map((page) => [page.id, page])),
      since,
      goingLive: new Set(),
      redirects: {},
      pictures: Object.fromEntries(await Promise.all([...this.revisions].map(pictureOf))),
      files: {},
      parts: {},
      readDocuments: (some) => Promise.resolve(new Map(some.map(({ id }) => [id, documents.get(id)!]))),
    }
  }

  /** What is another one than when it was read before, or stands elsewhere. */
  #since(pages: readonly LivePage[]): LiveSite['since'] {
    if (!this.isTold) return undefined
    const moved = [pages, this.#pages].flatMap((list, k, both) =>
      list.filter((page, i) => page !== both[1 - k]![i]),
    )
    return { pages: this.#pages, touched: new Set(moved.map(({ id }) => id)) }
  }
}

function node(kind: string, content: JsonObject, slots: PageNode['slots'] = {}): PageNode {
  return { kind, content, look: {}, sizes: { base: {} }, slots }
}

/** A page that reads of the site all that pages can. */
function documentOf({ settings, words, link, picture }: ModelPage): Page {
  const nodes = {
    root: node('page', { title: '', layout: 'plain' }, { sections: ['section'] }),
    section: node('section', {}, { blocks: ['title', 'text', 'trail', 'list', 'seen', 'menu'] }),
    title: node('heading', { level: 1, text: words || 'A title' }),
    text: node('text', {
      words: [{ type: 'paragraph', runs: [{ text: `${words} leads on`, link: { page: link } }] }],
    }),
    trail: node('breadcrumb', {}),
    list: node('sub-pages', { of: { page: link } }),
    seen: node('picture', { media: { id: picture } }),
    menu: node('menu', {}),
  }
  return withSettings({ format: PAGE_FORMAT, root: 'root', nodes }, settings)
}

function withBrand(header: Page, brand: string): Page {
  const root = header.nodes[header.root]!
  const changed = { ...root, content: { ...root.content, brand } }
  return { ...header, nodes: { ...header.nodes, [header.root]: changed } }
}

async function pictureOf([id, revision]: readonly [string, number]): Promise<[string, Picture]> {
  const folder = revision === 1 ? `/media/${id}` : `/media/${id}r${revision}`
  const [webp, avif, fallback] = [`${folder}/480.webp`, `${folder}/480.avif`, `${folder}/f.jpg`]
  for (const path of [webp, avif, fallback]) {
    await mkdir(join(dataDir, dirname(path)), { recursive: true })
    await writeFile(join(dataDir, path), path)
  }
  const sources = [{ width: 480, webp, avif }]
  return [id, { id, name: `${id}.jpg`, width: 480, height: 320, alt: id, sources, fallback }]
}

type Change = (model: Model) => void

/** A change of one page's document, which is its next version. */
function edit(id: string, change: (page: ModelPage) => void): Change {
  return ({ pages }) => {
    const page = pages.get(id)!
    change(page)
    page.version++
  }
}

const anyId = fc.constantFrom(...IDS)
const word = fc.constantFrom('dusk', 'dawn', 'a <b> of it', '')
const anyChange: fc.Arbitrary<Change> = fc.oneof(
  fc.tuple(anyId, word).map(([id, words]) => edit(id, (page) => (page.words = words))),
  fc.tuple(anyId, anyId).map(([id, link]) => edit(id, (page) => (page.link = link))),
  fc
    .tuple(anyId, fc.constantFrom(...PICTURES))
    .map(([id, picture]) => edit(id, (page) => (page.picture = picture))),
  fc
    .tuple(
      anyId,
      fc.record({ title: word, description: word, inNavigation: fc.boolean(), isListed: fc.boolean() }),
    )
    .map(([id, settings]) => edit(id, (page) => (page.settings = settings))),
  // Moved, with an address of its own.
  fc.tuple(anyId, fc.constantFrom(null, 'about', 'news')).map(([id, to]) => ({ pages }: Model) => {
    const isUnder = (at: string | null): boolean =>
      at !== null && (at === id || isUnder(pages.get(at)!.parentId))
    if (id !== 'home' && !isUnder(to)) pages.get(id)!.parentId = to
  }),
  fc.tuple(anyId, fc.constantFrom('a', 'b')).map(([id, letter]) => ({ pages }: Model) => {
    if (id !== 'home') pages.get(id)!.slug = id + letter
  }),
  fc.tuple(anyId, fc.boolean()).map(([id, isLive]) => ({ pages }: Model) => {
    pages.get(id)!.isLive = isLive
  }),
  fc.constantFrom(...PICTURES).map((id) => ({ revisions }: Model) => {
    revisions.set(id, revisions.get(id)! + 1)
  }),
  fc.constantFrom(8, 20).map((gutter) => (model: Model) => {
    const look: Look = demoSite.look
    model.look = { ...look, gutter: { ...look.gutter, from: gutter } }
  }),
  word.map((brand) => (model: Model) => {
    model.brand = brand || 'Tarrowmoor'
  }),
  word.map((name) => (model: Model) => {
    model.name = name || 'Tarrowmoor'
  }),
  fc.constantFrom(...IDS).map((id) => (model: Model) => {
    model.navigation = [{ page: id }, { href: 'https://elsewhere.example', label: 'Elsewhere' }]
  }),
  fc.constantFrom('hours', null).map((id) => (model: Model) => {
    model.notFoundPageId = id
  }),
)

const NOTHING = { pages: new Map() }

function outcome({ pages, addresses }: CompiledSite) {
  return { pages: new Map(pages), addresses }
}

test(
  'a site that is compiled change by change is the one that is compiled from nothing, byte by byte',
  async () => {
    const services = () => ({ dataDir, liveOrigin: 'http://localhost:1', ...UNWATCHED })
    let same = 0
    let made = 0
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(anyChange, { minLength: 1, maxLength: 3 }), { maxLength: 4 }),
        // Publishing knows the files of the release before, or also what they were made from, or also which pages changed.
        fc.constantFrom('files', 'site', 'changes', 'changes'),
        async (publishes, known) => {
          const model = new Model()
          model.isTold = known === 'changes'
          let last = await compileSite(await model.live(), NOTHING, services())
          for (const changes of publishes) {
            for (const change of changes) change(model)
            const step = await compileSite(
              await model.live(),
              known === 'files' ? { pages: last.pages } : last,
              services(),
            )
            for (const [id, { key }] of step.pages) {
              if (last.pages.get(id)?.key === key) same++
              else made++
            }
            last = step
          }
          const whole = await compileSite(await model.live(), NOTHING, services())
          // Files are named by their bytes, so equal names are equal bytes.
          expect(outcome(last)).toEqual(outcome(whole))
          expect(last.missing).toEqual([])
        },
      ),
      { numRuns: timesOf(150, 3_000) },
    )
    // Neither is everything made again, nor nothing.
    expect(same).toBeGreaterThan(200)
    expect(made).toBeGreaterThan(200)
  },
  timesOf(300_000, 14_400_000),
)

test('publishing one page renders that page, and a change of the header all that show it', async () => {
  const services = { dataDir, liveOrigin: 'http://localhost:1', ...UNWATCHED }
  const model = new Model()
  const first = await compileSite(await model.live(), NOTHING, services)
  const read: string[] = []
  const counted = async (): Promise<LiveSite> => {
    const live = await model.live()
    return {
      ...live,
      readDocuments: (pages) => {
        read.push(...pages.map(({ id }) => id))
        return live.readDocuments(pages)
      },
    }
  }
  edit('hours', (page) => (page.words = 'Later'))(model)
  const second = await compileSite(await counted(), first, services)
  expect(read).toEqual(['hours'])
  model.brand = 'Tarrow'
  await compileSite(await counted(), second, services)
  expect(read.slice(1)).toEqual([...IDS])
})
