import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { HtmlValidate } from 'html-validate'
import { runCli } from '../src/main.ts'

/** A package as JSON that may be spoiled anywhere. */
type Loose = any

let folder: string
let sample: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'gullyline-cli-'))
  sample = (await run('example')).out
  await writeFile(join(folder, 'example.json'), sample)
})
afterAll(() => rm(folder, { recursive: true, force: true }))

async function run(...args: string[]) {
  let [out, error] = ['', '']
  const code = await runCli(args, { out: (text) => (out += text), error: (text) => (error += text) })
  return { code, out, error }
}

async function spoiled(spoil: (value: Loose) => void): Promise<string> {
  const value: Loose = JSON.parse(sample)
  spoil(value)
  const file = join(folder, `spoiled-${Math.random().toString(36).slice(2)}.json`)
  await writeFile(file, JSON.stringify(value))
  return file
}

const byKind = (value: Loose, kind: string): string =>
  Object.keys(value.page.nodes as object).find((id) => value.page.nodes[id].kind === kind)!

/** Ways to spoil the example, each with where the spot is. */
const SPOILINGS: readonly (readonly [what: string, pointer: RegExp, spoil: (value: Loose) => void])[] = [
  ['another format', /^\/format/, (v) => (v.format = 'other/1')],
  ['no title', /^\/:.*title/, (v) => delete v.title],
  ['a field too many', /^\/:.*"extra"/, (v) => (v.extra = 1)],
  ['a title with a newline', /^\/title/, (v) => (v.title = 'a\nb')],
  ['a page that is a list', /^\/page/, (v) => (v.page = [])],
  ['a page of another format', /^\/page\/format/, (v) => (v.page.format = 99)],
  ['a root that is not there', /^\/page\/nodes.*nosuch/, (v) => (v.page.root = 'nosuch')],
  [
    'an unknown kind',
    /^\/page\/nodes\/\w+\/kind.*headng/,
    (v) => (v.page.nodes[byKind(v, 'heading')].kind = 'headng'),
  ],
  [
    'a level of 9',
    /^\/page\/nodes\/\w+\/content\/level/,
    (v) => (v.page.nodes[byKind(v, 'heading')].content.level = 9),
  ],
  [
    'words that are a number',
    /^\/page\/nodes\/\w+\/content\/text/,
    (v) => (v.page.nodes[byKind(v, 'heading')].content.text = 7),
  ],
  [
    'HTML in place of formatted text',
    /^\/page\/nodes\/\w+\/content\/words/,
    (v) => (v.page.nodes[byKind(v, 'text')].content.words = '<b>x</b>'),
  ],
  [
    'an unknown mark',
    /^\/page\/nodes\/\w+\/content\/words\/0/,
    (v) =>
      (v.page.nodes[byKind(v, 'text')].content.words = [
        { type: 'paragraph', runs: [{ text: 'x', marks: ['blink'] }] },
      ]),
  ],
  [
    'a gap that is not a step',
    /^\/page\/nodes\/\w+\/sizes\/base\/gap/,
    (v) => (v.page.nodes[byKind(v, 'row')].sizes.base.gap = '3px'),
  ],
  [
    'a colour outside the look',
    /^\/page\/nodes\/\w+\/look\/surface.*#123456/,
    (v) => (v.page.nodes[byKind(v, 'section')].look.surface = '#123456'),
  ],
  ...['run.html', 'run.js', 'run.svg', 'run.exe', 'plan.pdf.sh'].map(
    (name) =>
      [
        `a file that could run, ${name}`,
        /^\/files\/plan\/name/,
        (v: Loose) => (v.files = { plan: { name, data: '' } }),
      ] as const,
  ),
  ['a home on another host', /^\/site\/home/, (v) => (v.site.home = '//elsewhere.example/')],
  ['a page on another host', /^\/paths\/home/, (v) => (v.paths = { home: '//elsewhere.example/' })],
  [
    'a file whose name is a path',
    /^\/files\/plan\/name/,
    (v) => (v.files = { plan: { name: '../plan.pdf', data: '' } }),
  ],
  [
    'a size that does not exist',
    /^\/page\/nodes\/\w+\/sizes\/huge/,
    (v) => (v.page.nodes[byKind(v, 'row')].sizes.huge = {}),
  ],
  [
    'an empty narrower size',
    /^\/page\/nodes\/\w+\/sizes\/narrow/,
    (v) => (v.page.nodes[byKind(v, 'heading')].sizes.narrow = {}),
  ],
  [
    'a child that does not exist',
    /^\/page\/nodes.*gone/,
    (v) => v.page.nodes[byKind(v, 'row')].slots.blocks.push('gone'),
  ],
  [
    'a node inside itself',
    /^\/page\/nodes/,
    (v) => v.page.nodes[byKind(v, 'row')].slots.blocks.push(byKind(v, 'row')),
  ],
  [
    'a section in a row',
    /^\/page\/nodes/,
    (v) => {
      const [first, ...rest] = v.page.nodes[v.page.root].slots.sections
      v.page.nodes[v.page.root].slots.sections = rest
      v.page.nodes[v.page.nodes[rest[0]].slots.blocks[0]].slots.blocks.push(first)
    },
  ],
  ['a header with a page’s root', /^\/header\/root/, (v) => (v.header = v.page)],
  [
    'a colour with CSS behind it',
    /^\/look\/surfaces\/night\/ink/,
    (v) => (v.look.surfaces.night.ink = '#fff;}body{display:none'),
  ],
  [
    'a font family with CSS behind it',
    /^\/look\/fonts\/words\/name/,
    (v) => (v.look.fonts.words.name = 'x";}body{'),
  ],
  ['a page surface that is not there', /^\/look\/pageSurface/, (v) => (v.look.pageSurface = 'nosuch')],
  [
    'a picture of a type with scripts',
    /^\/media\/tmdome\/type/,
    (v) => (v.media.tmdome.type = 'image/svg+xml'),
  ],
  ['a picture that is not base64', /^\/media\/tmdome\/data/, (v) => (v.media.tmdome.data = '<svg>')],
  ['a font that climbs out of its folder', /^\/fonts/, (v) => (v.fonts['../x.woff2'] = '')],
  [
    'an id with a slash',
    /^\/page\/nodes\/a~1b/,
    (v) => (v.page.nodes['a/b'] = v.page.nodes[byKind(v, 'heading')]),
  ],
]

describe('the example', () => {
  test('is valid, and has no finding of severity error', async () => {
    expect(await run('validate', join(folder, 'example.json'))).toMatchObject({ code: 0, error: '' })
    expect(await run('check', join(folder, 'example.json'))).toMatchObject({ code: 0 })
  })

  test('is valid by the printed schema too, as another validator reads it (Ajv, 2020-12)', async () => {
    const schema = JSON.parse((await run('schema')).out) as object
    const ajv = new Ajv2020({ strict: false, discriminator: true, allErrors: true })
    const validate = ajv.compile(schema)
    expect(validate(JSON.parse(sample)) ? [] : validate.errors).toEqual([])
    const bad: Loose = JSON.parse(sample)
    bad.page.nodes[byKind(bad, 'heading')].content.level = 9
    expect(validate(bad)).toBe(false)
  })

  test('renders to files that need nothing else, and to HTML without a finding of html-validate', async () => {
    const target = join(folder, 'out')
    expect(await run('render', join(folder, 'example.json'), '--out', target)).toMatchObject({
      code: 0,
      error: '',
    })
    const html = await readFile(join(target, 'index.html'), 'utf8')
    const css = await readFile(join(target, 'style.css'), 'utf8')
    const named = [
      ...html.matchAll(/(?:src|href)="((?:media|style)[^"]*)"/g),
      ...css.matchAll(/url\(([^)]+)\)/g),
    ].map((match) => match[1]!)
    const written = (await readdir(target, { recursive: true })).map(String)
    expect(named.filter((path) => !written.includes(path))).toEqual([])
    expect(named.length).toBeGreaterThan(5)
    const judge = new HtmlValidate({
      extends: ['html-validate:recommended', 'html-validate:document'],
      rules: { 'require-sri': 'off' },
    })
    expect((await judge.validateString(html)).results).toEqual([])
  })

  test('brings the files that its links lead to, and no others', async () => {
    const file = await spoiled((v) => {
      v.files = {
        plan: { name: 'plan.pdf', data: Buffer.from('%PDF-').toString('base64') },
        other: { name: 'other.pdf', data: '' },
      }
      v.page.nodes[byKind(v, 'button')].content.link = { file: 'plan' }
    })
    const target = join(folder, 'with-files')
    expect((await run('check', file)).out).not.toMatch(/broken-link/)
    expect((await run('render', file, '--out', target)).code).toBe(0)
    expect(await readFile(join(target, 'index.html'), 'utf8')).toContain('href="files/plan/plan.pdf"')
    expect(await readFile(join(target, 'files/plan/plan.pdf'), 'utf8')).toBe('%PDF-')
    expect(await readdir(join(target, 'files'))).toEqual(['plan'])
  })

  test('tells the reading order and the arrangement of each grid section at every size', async () => {
    const given: Loose = JSON.parse(sample)
    const node = (kind: string, content: object, more: object) => ({
      kind,
      content,
      look: {},
      sizes: { base: {} },
      slots: {},
      ...more,
    })
    const at = (gridColumn: number, gridRow: number) => ({
      sizes: { base: { gridColumn, gridRow, gridColumns: 6, gridRows: 1 } },
    })
    Object.assign(given.page.nodes, {
      grid: node('grid', {}, { slots: { blocks: ['second', 'first'] } }),
      second: node('heading', { text: 'Second', level: 2 }, at(7, 1)),
      first: node('heading', { text: 'First', level: 2 }, at(1, 1)),
    })
    given.page.nodes[given.page.root].slots.sections.push('grid')
    const file = join(folder, 'grid.json')
    await writeFile(file, JSON.stringify(given))
    const { code, out } = await run('order', file, '--json')
    const { grids } = JSON.parse(out)
    expect(code).toBe(0)
    expect(grids).toHaveLength(1)
    expect(grids[0].written).toEqual(['second', 'first'])
    expect(grids[0].sizes.base.order).toEqual(['first', 'second'])
    expect(grids[0].sizes.narrow.placed.map((one: Loose) => [one.column, one.columns, one.row])).toEqual([
      [1, 4, 2],
      [1, 4, 1],
    ])
    expect((await run('order', file)).out).toContain('grid at narrow, 4 columns: first second')
    expect((await run('check', file)).out).toContain('reading-order')
  })

  test('renders to the same bytes every time', async () => {
    for (const name of ['one', 'two'])
      await run('render', join(folder, 'example.json'), '--out', join(folder, name))
    for (const file of ['index.html', 'style.css']) {
      expect(await readFile(join(folder, 'one', file))).toEqual(await readFile(join(folder, 'two', file)))
    }
  })
})

describe('the example, spoiled', () => {
  test.each(SPOILINGS)('%s is refused with a pointer to the spot', async (_what, pointer, spoil) => {
    const file = await spoiled(spoil)
    for (const args of [
      ['validate', file],
      ['check', file, '--json'],
      ['render', file, '--out', join(folder, 'never')],
    ]) {
      const { code, out, error } = await run(...args)
      expect({ code, out }).toEqual({ code: 2, out: '' })
      expect(error.split('\n').some((line) => pointer.test(line)) || error).toBe(true)
    }
    expect(await readdir(folder)).not.toContain('never')
  })
})

describe('calls that can’t be used', () => {
  test.each([
    [['nonsense'], /no command "nonsense"/],
    [['validate'], /usage: validate FILE/],
    [['validate', '/nosuch.json'], /no such file/],
    [['render', 'x'], /usage: render/],
    [['check', 'x', '--loud'], /--loud/],
  ])('%p', async (args, pattern) => {
    const { code, error } = await run(...args)
    expect(code).toBe(2)
    expect(error).toMatch(pattern)
  })

  test('a file that is not JSON says where', async () => {
    const file = join(folder, 'broken.json')
    await writeFile(file, '{"format": ')
    expect(await run('validate', file)).toMatchObject({ code: 2 })
    expect((await run('validate', file)).error).toMatch(/is not JSON/)
  })
})

test('a package that the version before wrote is read', async () => {
  const file = await spoiled((v) => {
    v.page.format = 2
    v.page.nodes[byKind(v, 'heading')].held = 'words'
  })
  const { code, error } = await run('validate', file)
  expect([code, error]).toEqual([0, ''])
})

test('check prints findings as JSON with their source, and ends with 1 for an error', async () => {
  const file = await spoiled((v) => (v.page.nodes[byKind(v, 'button')].content.link = undefined))
  const { code, out } = await run('check', file, '--json')
  expect(code).toBe(1)
  const findings = JSON.parse(out) as Record<string, string>[]
  expect(findings[0]).toMatchObject({
    rule: 'broken-link',
    severity: 'error',
    nodeId: expect.any(String),
    source: 'common practice, no source',
  })
})

describe('files of other programs', () => {
  test('an HTML file is printed as a page of blocks, with what was not taken over beside it', async () => {
    const file = join(folder, 'visit.html')
    await writeFile(
      file,
      '<title>Visit</title><h1>Visit</h1><p>Come <b>soon</b>.</p><script>alert(1)</script>',
    )
    const { code, out, error } = await run('read', file)
    expect([code, error]).toEqual([0, '1 × A script: left out\n'])
    const read: Loose = JSON.parse(out)
    expect([
      read.title,
      Object.values(read.page.nodes)
        .map((node: Loose) => node.kind as string)
        .sort(),
    ]).toEqual(['Visit', ['heading', 'page', 'section', 'text']])
    const strange = await run('read', join(folder, 'example.json'))
    expect([strange.code, strange.out]).toEqual([2, ''])
    expect(strange.error).toContain('is neither HTML nor Markdown')
    expect((await run('read', join(folder, 'nothing.md'))).error).toContain('there is no such file')
  })

  test('a page is written as HTML, Markdown and JSON, which say the same', async () => {
    const file = join(folder, 'example.json')
    const given: Loose = JSON.parse(sample)
    const title = given.page.nodes[byKind(given, 'heading')].content.text as string
    for (const format of ['html', 'markdown', 'json']) {
      const { code, out } = await run('write', file, '--as', format)
      expect(code).toBe(0)
      expect(out).toContain(title)
    }
    expect((await run('write', file, '--as', 'pdf')).error).toContain('usage: write FILE')
  })
})
