/** The directions in which parts may know each other, read off every import in the code. */
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, test } from '@jest/globals'

const root = join(dirname(fileURLToPath(import.meta.url)), '../..')

interface Import {
  readonly from: string
  readonly to: string
}

function sources(folder: string): string[] {
  return readdirSync(join(root, folder)).flatMap((name) => {
    const path = join(folder, name)
    if (statSync(join(root, path)).isDirectory()) return sources(path)
    return /\.tsx?$/.test(name) ? [path] : []
  })
}

function importsOf(file: string): Import[] {
  const text = readFileSync(join(root, file), 'utf8')
  const found = text.matchAll(/^(?:import|export)\s+(?:type\s)?(?:[^'"]*?\sfrom\s+)?['"]([^'"]+)['"]/gm)
  const lazy = [...text.matchAll(/\bimport\('([^']+)'\)/g)].map(([, target]) => ({
    from: file,
    to: relative(root, join(root, dirname(file), target!)),
  }))
  return [
    ...lazy,
    ...[...found].map(([, target]) => ({
      from: file,
      to: target!.startsWith('.') ? relative(root, join(root, dirname(file), target!)) : target!,
    })),
  ]
}

const files = ['core/src', 'measuring/src', 'server/src', 'web/src', 'cli/src', 'demo/src'].flatMap(sources)
const imports = files.flatMap(importsOf)
const within = (folder: string) => imports.filter((one) => one.from.startsWith(`${folder}/`))

test('the walk sees the code: hundreds of imports, in every part', () => {
  expect(imports.length).toBeGreaterThan(200)
  for (const part of ['core', 'server', 'web', 'demo']) expect(within(part).length).toBeGreaterThan(2)
})

describe('parts', () => {
  const allowed: Readonly<Record<string, RegExp>> = {
    'core/src':
      /^(core\/(src|generated)\/|hast$|property-information$|node-diff3$|lucide$|culori\/fn$|unified$|re(hype|mark)-[a-z]+$)/,
    'measuring/src': /^(measuring\/(src|generated)\/|@gullyline\/core$|playwright-core$|node:fs$)/,
    'cli/src': /^(cli\/src\/|@gullyline\/(core|demo|measuring\/chromium)$|node:)/,
    'demo/src': /^(demo\/|@gullyline\/core$|node:)/,
    'server/src':
      /^(server\/(src|generated)\/|@gullyline\/(core|demo|measuring\/chromium)$|node:|hono|@hono\/|typeorm$|mysql2$|reflect-metadata$|pino$|sharp$|tinypool$|@zxcvbn-ts\/language-common$|file-type$|yazl$|yauzl$|@sindresorhus\/transliterate$)/,
    'web/src':
      /^(web\/src\/|@gullyline\/(core|measuring)$|react|@tiptap\/|styled-components$|swr$|lucide$|react-image-crop|commonmark$|match-sorter$|style-to-js$|qrcode\.react$|echarts\/|@fontsource-variable\/)/,
  }
  test.each(Object.entries(allowed))('%s imports only what it may know', (folder, pattern) => {
    expect(
      within(folder)
        .filter((one) => !pattern.test(one.to))
        .map((one) => `${one.from} -> ${one.to}`),
    ).toEqual([])
  })
})

describe('inside core', () => {
  const never: readonly (readonly [folder: string, target: RegExp, except: RegExp])[] = [
    // The third pattern names files that are let through.
    ['core/src/page', /^core\/src\/(?!page\/)/, /^$/],
    ['core/src/blocks', /^core\/src\/(edits|resolve|render|checks|compare|wire)\//, /(starters|sketch)\.ts$/],
    ['core/src/kit/element.ts', /^core\//, /^$/],
    // Kinds are drawn with the kit; what draws them knows them, and they know nothing of it.
    // Rectangles on columns and rows, and nothing of blocks.
    ['core/src/grid', /^core\/src\/(?!grid\/|page\/|sizes\/)/, /^$/],
    ['core/src/kit', /^core\/src\/(?!kit\/|page\/|look\/|grid\/)/, /^$/],
    ['core/src/resolve', /^core\/src\/(?!resolve\/|blocks\/|kit\/|page\/|look\/|sizes\/|grid\/)/, /^$/],
    ['core/src/render', /^core\/src\/(edits|checks|compare|exchange|wire)\//, /^$/],
    ['core/src/sizes', /^core\/src\/(edits|resolve|render)\//, /^$/],
  ]
  test.each(never)('%s does not know %s', (folder, target, except) => {
    const wrong = imports.filter(
      (one) => one.from.startsWith(folder) && target.test(one.to) && !except.test(one.from),
    )
    expect(wrong.map((one) => `${one.from} -> ${one.to}`)).toEqual([])
  })

  test('kinds are known to the registry’s makers alone', () => {
    const wrong = imports.filter(
      (one) =>
        /^core\/src\/blocks\/kinds\/index/.test(one.to) && !/(default|screen)-registry\.ts$/.test(one.from),
    )
    expect(wrong.map((one) => one.from)).toEqual([])
  })

  test('inside a part nobody imports through its barrel', () => {
    expect(
      within('core')
        .filter((one) => one.to === 'core/src/index.ts')
        .map((one) => one.from),
    ).toEqual([])
  })
})

describe('inside the server', () => {
  /** Each knows itself and those before it. */
  const AREAS = [
    'db',
    'http',
    'workers',
    'people',
    'documents',
    'journal',
    'presence',
    'media',
    'pages',
    'library',
    'publish',
    'devices',
    'sweeps',
    'sites',
    'exchange',
    'demo',
    'visitors',
    'api',
  ]
  const areaOf = (file: string): string | undefined => /^server\/src\/([^/]+)\//.exec(file)?.[1]

  test('every area is in the order of what may know what', () => {
    const areas = new Set(files.flatMap((file) => areaOf(file) ?? []))
    expect([...areas].sort()).toEqual([...AREAS].sort())
  })

  test.each(AREAS)('%s knows only what comes before it', (area) => {
    const known = AREAS.slice(0, AREAS.indexOf(area) + 1)
    const wrong = imports.filter(({ from, to }) => {
      const target = areaOf(to)
      return areaOf(from) === area && target !== undefined && !known.includes(target)
    })
    expect(wrong.map(({ from, to }) => `${from} -> ${to}`)).toEqual([])
  })
})

test('no imports form a cycle, those of types among them', () => {
  const graph = new Map<string, string[]>()
  for (const one of imports) graph.set(one.from, [...(graph.get(one.from) ?? []), one.to])
  const done = new Set<string>()
  const cycles: string[] = []
  const visit = (file: string, path: readonly string[]): void => {
    if (path.includes(file)) cycles.push([...path.slice(path.indexOf(file)), file].join(' -> '))
    if (done.has(file) || path.includes(file)) return
    for (const next of graph.get(file) ?? []) visit(next, [...path, file])
    done.add(file)
  }
  for (const file of graph.keys()) visit(file, [])
  expect(cycles).toEqual([])
})

test('every block kind of the folder is in the list', () => {
  const kinds = readdirSync(join(root, 'core/src/blocks/kinds')).filter((name) => name !== 'index.ts')
  const listed = importsOf('core/src/blocks/kinds/index.ts').map((one) => one.to.split('/').at(-1)!)
  expect(kinds.filter((name) => !listed.includes(name))).toEqual([])
})

test('every check of the folder is run', () => {
  const parts = ['define-check.ts', 'run-checks.ts', 'contrast-ratio.ts']
  const checks = readdirSync(join(root, 'core/src/checks')).filter((name) => !parts.includes(name))
  const listed = importsOf('core/src/checks/run-checks.ts').map((one) => one.to.split('/').at(-1)!)
  expect(checks.filter((name) => !listed.includes(name))).toEqual([])
})

test('every gully rule of the folder is imported by the list', () => {
  const listed = imports.filter(({ from }) => from === 'core/src/measure/run-rules.ts').map(({ to }) => to)
  // Jumps are found between two widths, by the sweep itself.
  const rules = sources('core/src/measure/rules').filter((file) => !file.endsWith('/jump.ts'))
  expect(rules.filter((file) => !listed.includes(file))).toEqual([])
})

test('every file is imported, and every exported value is used by another file', () => {
  const entries =
    /^(core\/src\/index|cli\/src\/bin|server\/src\/main|server\/src\/people\/account-command|server\/src\/exchange\/package-command|server\/src\/visitors\/visitor-process|web\/src\/main|web\/src\/exchange\/read-file\.worker|web\/src\/editor\/gullyline\/read-bands\.worker|measuring\/src\/(index|chromium)|demo\/src\/index)\.tsx?$/
  const tests = ['core/test', 'server/test', 'web/test', 'cli/test', 'e2e', 'scripts', 'demo/make'].flatMap(
    sources,
  )
  const all = [...imports, ...tests.flatMap(importsOf)]
  const known = new Set(all.map((one) => one.to))
  expect(files.filter((file) => !entries.test(file) && !known.has(file))).toEqual([])
  const texts = new Map([...files, ...tests].map((file) => [file, readFileSync(join(root, file), 'utf8')]))
  const unused = files
    .filter((file) => !entries.test(file))
    .flatMap((file) => {
      const names = [...texts.get(file)!.matchAll(/^export (?:async )?(?:const|function|class) (\w+)/gm)].map(
        (match) => match[1]!,
      )
      const users = all.filter((one) => one.to === file).map((one) => texts.get(one.from)!)
      return names
        .filter((name) => !users.some((text) => new RegExp(`\\b${name}\\b`).test(text)))
        .map((name) => `${file}: ${name}`)
    })
  expect(unused).toEqual([])
})

/** What is stored in a format of before can only be told by the names that kinds had then. */
const BY_NAME = new Set(['core/src/page/migrate.ts'])

test('what a kind does differently is a field of its definition: nobody else asks which kind a node is', () => {
  const asking = files
    .filter((file) => !file.startsWith('core/src/blocks/kinds/') && !BY_NAME.has(file))
    .filter((file) =>
      /\b(?:node|holder|into|one|kind)\)?\??\.kind [!=]== '/.test(readFileSync(join(root, file), 'utf8')),
    )
  expect(asking).toEqual([])
})

test('the editor knows no kind by the class of its element', () => {
  const kinds = readdirSync(join(root, 'core/src/blocks/kinds')).map((name) => name.replace(/\.ts$/, ''))
  const named = new RegExp(`['"\`\\s,>(]\\.(?:${kinds.join('|')})(?![\\w(/])`)
  const naming = sources('web/src').filter((file) => named.test(readFileSync(join(root, file), 'utf8')))
  expect(naming).toEqual([])
})
