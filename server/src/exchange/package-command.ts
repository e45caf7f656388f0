/** `npm run package`: writes packages of a site, and reads them into one. scripts/package.mjs starts this beside a running database. */
import { createWriteStream } from 'node:fs'
import { resolve } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { parseArgs } from 'node:util'
import { pino } from 'pino'
import { importKey, type ImportChoice, type ImportChoices, type ImportItem } from '@gullyline/core'
import { openDatabase } from '../db/data-source.ts'
import { allSites, type SiteScope } from '../db/site-scope.ts'
import { GULLYLINE } from '../documents/store.ts'
import { Refused } from '../http/errors.ts'
import { UNWATCHED } from '../http/progress.ts'
import { makeServices, type Services } from '../services.ts'
import { checkExport, exportPackage } from './export-package.ts'
import { importPackage, lookAtPackage } from './import-package.ts'

const USAGE = `npm run package -- export FILE [--site ID] (--all | --part ID … | --page ID … [--under])
npm run package -- look FILE [--site ID] [--json]
npm run package -- import FILE [--site ID] [--existing mine|theirs|both] [--choose KEY=CHOICE …]

"look" prints what an import would do, and changes nothing. "--existing" says what is done with what the site has
already (mine where it is left out), "--choose" says it of one thing, by the key that "look" prints.
`

const OPTIONS = {
  site: { type: 'string' },
  all: { type: 'boolean' },
  under: { type: 'boolean' },
  part: { type: 'string', multiple: true },
  page: { type: 'string', multiple: true },
  json: { type: 'boolean' },
  existing: { type: 'string' },
  choose: { type: 'string', multiple: true },
} as const

type Values = ReturnType<typeof parse>['values']

function parse() {
  return parseArgs({ allowPositionals: true, options: OPTIONS })
}

async function main(): Promise<void> {
  const { positionals, values } = parse()
  const [verb = '', file = ''] = positionals
  const act = Object.hasOwn(ACTS, verb) ? ACTS[verb] : undefined
  if (!act || file === '') throw new Refused('malformed', USAGE)
  const { GULLYLINE_DATABASE_URL: url = '', GULLYLINE_DATA: dataDir = '' } = process.env
  const db = await openDatabase(url)
  try {
    const log = pino({ level: 'silent' })
    const services = makeServices({ db, log, dataDir, liveOrigin: 'http://localhost' })
    process.stdout.write(
      `${await act(services, await siteOf(services, values.site), resolve(file), values)}\n`,
    )
  } finally {
    await db.destroy()
  }
}

async function siteOf({ db }: Services, wanted: string | undefined): Promise<SiteScope> {
  const sites = await allSites(db)
  const site = wanted === undefined ? sites[0] : sites.find(({ siteId }) => siteId === wanted)
  if (site) return site
  throw new Refused(
    'not-found',
    `There is no such site. There are: ${sites.map(({ siteId }) => siteId).join(', ')}.`,
  )
}

type Act = (services: Services, site: SiteScope, file: string, values: Values) => Promise<string>

const ACTS: Readonly<Record<string, Act>> = {
  async export(services, site, file, { all, part = [], page = [], under }) {
    if (all !== true && part.length + page.length === 0) throw new Refused('malformed', USAGE)
    const wanted = all ? ({ all: true } as const) : { parts: part, pages: page, withSubPages: under === true }
    const facts = await checkExport(services, site, wanted)
    await pipeline(await exportPackage(services, site, wanted), createWriteStream(file))
    return `Wrote ${file}: ${facts.pages} pages, ${facts.parts} parts, ${facts.media} pictures and files.`
  },
  async look(services, site, file, { json }) {
    const plan = await lookAtPackage(services, site, file)
    if (json) return JSON.stringify(plan, undefined, 2)
    return [
      ...plan.items.map(lineOf),
      ...plan.surfaces.map(({ title, here }) => `colour\t${title} becomes ${here}`),
      ...(plan.lostPages > 0 ? [`links\t${plan.lostPages} pages that are linked to do not come along`] : []),
    ].join('\n')
  },
  async import(services, site, file, { existing = 'mine', choose = [] }) {
    const { items, surfaces } = await lookAtPackage(services, site, file)
    const choices = {
      ...Object.fromEntries(
        items.flatMap((item) =>
          item.choices.includes(existing as ImportChoice) ? [[item.key, existing]] : [],
        ),
      ),
      ...Object.fromEntries(choose.map((one) => one.split('='))),
    } as ImportChoices
    const done = await importPackage(services, site, file, {
      choices,
      surfaces: Object.fromEntries(surfaces.map(({ name, here }) => [name, here])),
      by: GULLYLINE,
      watch: UNWATCHED,
    })
    return `Imported: ${done.added} added, ${done.replaced} replaced, ${done.kept} stayed. Publish what visitors are to see.`
  },
}

function lineOf({ thing, id, name, match, suggested }: ImportItem): string {
  const there = match ? `${match.isSame ? 'same as' : 'differs from'} ${match.name}` : 'new here'
  return [importKey(thing, id), name, there, suggested].join('\t')
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exitCode = 1
})
