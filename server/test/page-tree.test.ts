/** The page tree through the server: moving, copying, addresses, the bin, the navigation, and what visitors find meanwhile. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { BinnedPage, ErrorBody, PageDocument, PageSummary, SiteInfo } from '@gullyline/core'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const post = <T>(path: string, body: unknown = {}) => server.ask<T>(path, { method: 'POST', body })
const pages = async () => (await server.ask<PageSummary[]>('/api/sites/tarrowmoor/pages')).body
const page = async (id: string) => (await pages()).find((one) => one.id === id)!
const under = async (parentId: string | null) =>
  (await pages())
    .filter((one) => one.parentId === parentId)
    .sort((a, b) => a.position - b.position)
    .map((one) => one.id)
const live = (path: string) => server.site.request(`http://localhost:1${path}`)

describe('adding', () => {
  test('puts each page behind all that are there, though the sample site leaves positions out', async () => {
    // Before anything else is done: what deletes a page numbers the others anew.
    const before = await under(null)
    const added: string[] = []
    for (const title of ['A', 'B', 'C', 'D', 'E', 'F']) {
      const { body } = await post<PageDocument>('/api/sites/tarrowmoor/pages', { title, parentId: null })
      added.push(body.summary.id)
    }
    expect(await under(null)).toEqual([...before, ...added])
    const positions = (await pages())
      .filter(({ parentId }) => parentId === null)
      .map(({ position }) => position)
    expect(new Set(positions).size).toBe(positions.length)
    for (const id of added) await server.ask(`/api/sites/tarrowmoor/pages/${id}`, { method: 'DELETE' })
  })
  test('from every template makes a page that goes live without its placeholders', async () => {
    const templates = ['blank', 'plain', 'side', 'landing', 'article', 'about', 'questions', 'event', 'visit']
    for (const template of templates) {
      const { status, body } = await post<PageDocument>('/api/sites/tarrowmoor/pages', {
        title: `Made of ${template}`,
        parentId: null,
        template,
      })
      expect([template, status]).toEqual([template, 201])
      const published = await server.publish<ErrorBody>(body.summary.id)
      expect([template, published.status, published.body.problems]).toEqual([template, 200, undefined])
      const answer = await live(body.summary.path)
      const html = await answer.text()
      expect(answer.status).toBe(200)
      const nodes = Object.values(body.document.nodes)
      const prompts = nodes.flatMap((node) => Object.values(node.prompts ?? {}))
      expect([template, prompts.length > 0]).toEqual([template, template !== 'blank'])
      for (const prompt of [...prompts, 'Write here'])
        expect([template, prompt, html.includes(`>${prompt}`)]).toEqual([template, prompt, false])
      await server.ask(`/api/sites/tarrowmoor/pages/${body.summary.id}`, { method: 'DELETE' })
    }
  })
  test('refuses a template that does not exist, and adds nothing', async () => {
    const before = (await pages()).length
    const { status, body } = await post('/api/sites/tarrowmoor/pages', {
      title: 'X',
      parentId: null,
      template: '../x',
    })
    expect([status, body.code]).toEqual([404, 'not-found'])
    expect((await pages()).length).toBe(before)
  })
})

describe('moving', () => {
  test('puts a page where it is said, keeps the order of the others, and leaves a redirect from its old address', async () => {
    const before = await under(null)
    const { status, body } = await post<PageSummary>('/api/sites/tarrowmoor/pages/tmvisit/place', {
      parentId: 'tmabout',
      position: 0,
    })
    expect([status, body.path]).toEqual([200, '/about/visit/'])
    expect(await under('tmabout')).toEqual(['tmvisit'])
    expect(await under(null)).toEqual(before.filter((id) => id !== 'tmvisit'))
    const old = await live('/visit/')
    expect([old.status, old.headers.get('location')]).toEqual([301, '/about/visit/'])
    expect((await live('/about/visit/')).status).toBe(200)
    expect(await (await live('/')).text()).toContain('href="/about/visit/"')

    await post('/api/sites/tarrowmoor/pages/tmvisit/place', { parentId: null, position: 1 })
    expect(await under(null)).toEqual(before)
    expect((await live('/visit/')).status).toBe(200)
    expect((await live('/about/visit/')).headers.get('location')).toBe('/visit/')
  })
  test.each([
    ['under itself', 'tminstruments', { parentId: 'tminstruments', position: 0 }, 'not-valid'],
    ['under its own sub-page', 'tminstruments', { parentId: 'tmbig', position: 0 }, 'not-valid'],
    ['under nothing that exists', 'tmvisit', { parentId: 'nosuch', position: 0 }, 'not-found'],
    ['the first page', 'tmhome', { parentId: 'tmabout', position: 0 }, 'not-valid'],
    ['a page that does not exist', 'nosuch', { parentId: null, position: 0 }, 'not-found'],
    ['to half a place', 'tmvisit', { parentId: null, position: 1.5 }, 'malformed'],
  ])('refuses %s, and changes nothing', async (_what, id, to, code) => {
    const before = await pages()
    expect((await post(`/api/sites/tarrowmoor/pages/${id}/place`, to)).body.code).toBe(code)
    expect(await pages()).toEqual(before)
  })
})

describe('an address', () => {
  test('is changed, and the old one of it and of its sub-pages leads there', async () => {
    const change = { method: 'PATCH', body: { slug: 'What We Use!' } }
    const { body } = await server.ask<PageSummary>('/api/sites/tarrowmoor/pages/tminstruments', change)
    expect(body.path).toBe('/what-we-use/')
    for (const [old, now] of [
      ['/instruments/', '/what-we-use/'],
      ['/instruments/big-telescope/', '/what-we-use/big-telescope/'],
      ['/instruments/big-telescope', '/what-we-use/big-telescope/'],
    ] as const) {
      const answer = await live(old)
      expect([old, answer.status, answer.headers.get('location')]).toEqual([old, 301, now])
      expect((await live(now)).status).toBe(200)
    }
    await server.ask('/api/sites/tarrowmoor/pages/tminstruments', {
      method: 'PATCH',
      body: { slug: 'instruments' },
    })
  })
  test('that a sibling has is refused by that sibling’s name', async () => {
    const taken = { method: 'PATCH', body: { slug: 'about' } }
    const { status, body } = await server.ask('/api/sites/tarrowmoor/pages/tmvisit', taken)
    expect([status, body.code]).toEqual([409, 'address-taken'])
    expect(body.message).toContain('“About”')
    expect((await page('tmvisit')).slug).toBe('visit')
  })
})

describe('copying', () => {
  test('takes the sub-pages along where that is asked for, each with its words, none of them live', async () => {
    const { body } = await post<PageSummary>('/api/sites/tarrowmoor/pages/tminstruments/copy', {
      withSubPages: true,
    })
    expect(body).toMatchObject({
      title: 'Instruments (copy)',
      slug: 'instruments-2',
      state: 'never-published',
    })
    const order = await under(null)
    expect(order.indexOf(body.id)).toBe(order.indexOf('tminstruments') + 1)
    const inside = await under(body.id)
    expect(inside).toHaveLength(2)
    const copied = (await server.ask<PageDocument>(`/api/sites/tarrowmoor/pages/${inside[0]}`)).body
    const original = (await server.ask<PageDocument>(`/api/sites/tarrowmoor/pages/tmbig`)).body
    expect(copied.document).toEqual(original.document)
    const alone = await post<PageSummary>('/api/sites/tarrowmoor/pages/tminstruments/copy', {
      withSubPages: false,
    })
    expect(await under(alone.body.id)).toEqual([])
    for (const id of [body.id, alone.body.id])
      await server.ask(`/api/sites/tarrowmoor/pages/${id}`, { method: 'DELETE' })
  })
})

describe('the bin', () => {
  test('takes a page and all under it, hides them from visitors, and gives them back as they were', async () => {
    const before = await pages()
    await server.ask('/api/sites/tarrowmoor/pages/tmnews', { method: 'DELETE' })
    expect((await pages()).map((one) => one.id)).not.toContain('tmcomet')
    expect((await live('/news/comet/')).status).toBe(404)
    expect((await server.publish('tmcomet')).body.code).toBe('page-deleted')
    expect(await (await live('/')).text()).not.toContain('/news/')
    const bin = (await server.ask<BinnedPage[]>('/api/sites/tarrowmoor/bin')).body
    expect(bin[0]).toMatchObject({ id: 'tmnews', title: 'News', path: '/news/', subPages: 4 })
    await post('/api/sites/tarrowmoor/pages/tmnews/restore')
    expect(await pages()).toEqual(before)
    expect((await live('/news/comet/')).status).toBe(200)
  })
  test('gives a page back to the top when what it stood under is gone, under an address that is free', async () => {
    await server.ask('/api/sites/tarrowmoor/pages/tmbig', { method: 'DELETE' })
    await server.ask('/api/sites/tarrowmoor/pages/tminstruments', { method: 'DELETE' })
    const other = await post<PageDocument>('/api/sites/tarrowmoor/pages', {
      title: 'Big telescope',
      parentId: null,
    })
    const { body } = await post<PageSummary>('/api/sites/tarrowmoor/pages/tmbig/restore')
    expect([body.parentId, body.slug]).toEqual([null, 'big-telescope-2'])
    await post('/api/sites/tarrowmoor/pages/tminstruments/restore')
    await server.ask(`/api/sites/tarrowmoor/pages/${other.body.summary.id}`, { method: 'DELETE' })
  })
  test.each([
    ['the first page', 'DELETE', 'tmhome', 'not-valid'],
    ['what is not in it', 'POST', 'tmvisit/restore', 'not-found'],
  ])('refuses %s', async (_what, method, path, code) => {
    expect((await server.ask(`/api/sites/tarrowmoor/pages/${path}`, { method, body: {} })).body.code).toBe(
      code,
    )
  })
})

describe('settings', () => {
  test('theme, listing, sharing picture and label are kept, and live with the next publish', async () => {
    const more = { theme: 'moss', isListed: false, sharePicture: 'tmdusk', navigationLabel: 'Come here' }
    const { body } = await server.ask<PageSummary>('/api/sites/tarrowmoor/pages/tmvisit', {
      method: 'PATCH',
      body: { more },
    })
    expect([body.more, body.state]).toEqual([more, 'changed'])
    expect(await (await live('/visit/')).text()).not.toContain('noindex')
    await server.publish('tmvisit')
    const html = await (await live('/visit/')).text()
    expect(html).toContain('<meta name="robots" content="noindex">')
    expect(html).toContain(
      '<meta property="og:image" content="http://localhost:1/media/tmdusk/fallback.jpg">',
    )
    expect(await (await live('/')).text()).toContain('>Come here</a>')
    expect((await page('tmvisit')).state).toBe('live')
  })
  test.each([{ evil: 1 }, { isListed: 'no' }, { theme: 5 }, { navigationLabel: 'x'.repeat(81) }])(
    '%p is refused and changes nothing',
    async (more) => {
      const before = await page('tmvisit')
      const { body } = await server.ask('/api/sites/tarrowmoor/pages/tmvisit', {
        method: 'PATCH',
        body: { more },
      })
      expect(['malformed', 'not-valid']).toContain(body.code)
      expect(await page('tmvisit')).toEqual(before)
    },
  )
})

describe('the navigation', () => {
  const put = (items: unknown) =>
    server.ask<SiteInfo>('/api/sites/tarrowmoor/navigation', { method: 'PUT', body: { items } })
  test('has an order of its own and lines that lead elsewhere, live at once', async () => {
    const items = [
      { href: 'https://shop.example/', label: 'Shop' },
      { page: 'tmquestions' },
      { page: 'tmabout', anchor: 'friends', label: 'Friends' },
    ]
    expect((await put(items)).body.navigation).toEqual(items)
    const nav = /<nav [^>]*aria-label="Site"[^>]*>(.*?)<\/nav>/.exec(await (await live('/')).text())![1]!
    const hrefs = [...nav.matchAll(/href="([^"]+)"/g)].map((match) => match[1])
    expect(hrefs.slice(0, 3)).toEqual(['https://shop.example/', '/questions/', '/about/#friends'])
    expect(hrefs.filter((href) => href === '/questions/')).toHaveLength(1)
  })
  test.each([
    [[{ href: 'javascript:alert(1)', label: 'x' }]],
    [[{ href: 'https://a.example/' }]],
    [[{ page: 'tmabout', label: '' }]],
    [[{ page: 'tmabout', anchor: '"><b>' }]],
    [[{ page: 'tmabout', evil: 1 }]],
    [['x']],
    [Array.from({ length: 101 }, () => ({ page: 'tmabout' }))],
  ])('refuses %j and changes nothing', async (items) => {
    const before = (await server.ask<SiteInfo>('/api/sites/tarrowmoor')).body.navigation
    expect((await put(items)).body.code).toBe('not-valid')
    expect((await server.ask<SiteInfo>('/api/sites/tarrowmoor')).body.navigation).toEqual(before)
  })
})

test('a page with errors can be saved and can’t be published, and says which', async () => {
  const { document, summary } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmcomet')).body
  const root = document.nodes[document.root]!
  const { title: _title, ...content } = root.content
  const spoiled = { ...document, nodes: { ...document.nodes, [document.root]: { ...root, content } } }
  const body = { base: summary.version, document: spoiled, journal: null }
  expect(
    (await server.ask('/api/sites/tarrowmoor/pages/tmcomet/document', { method: 'PUT', body })).status,
  ).toBe(200)
  const { status, body: refused } = await server.publish<ErrorBody>('tmcomet')
  expect([status, refused.code]).toEqual([409, 'has-problems'])
  expect(refused.problems).toEqual([
    { pointer: `/nodes/${document.root}`, message: 'The page’s field “Article heading” is empty' },
  ])
  expect(await (await live('/news/comet/')).text()).toContain('Ines')
})

test('pages of the top level come into the navigation by themselves up to the limit of the site, and no more', async () => {
  const inNavigation = async () =>
    (await server.ask<PageSummary[]>('/api/sites/tarrowmoor/pages')).body.filter(
      (page) => page.parentId === null && page.inNavigation,
    ).length
  const limitTo = (navigationLimit: unknown) =>
    server.ask<SiteInfo>('/api/sites/tarrowmoor/settings', { method: 'PUT', body: { navigationLimit } })
  const before = await inNavigation()
  const { status, body } = await limitTo(before + 2)
  expect([status, body.navigationLimit]).toEqual([200, before + 2])
  for (const wrong of [-1, 501, 1.5, '7', null]) expect((await limitTo(wrong)).status).toBe(400)
  for (let i = 0; i < 4; i++)
    await post('/api/sites/tarrowmoor/pages', { title: `Line ${i}`, parentId: null })
  expect(await inNavigation()).toBe(before + 2)
})
