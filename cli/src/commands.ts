/** The commands, by name. Each takes its arguments and gives an exit code. */
import { check } from './check.ts'
import { example } from './example.ts'
import { exportSite } from './export-site.ts'
import type { Exit, Streams } from './outcome.ts'
import { order } from './order.ts'
import { read } from './read.ts'
import { render } from './render.ts'
import { schema } from './schema.ts'
import { sweep } from './sweep.ts'
import { validate } from './validate.ts'
import { write } from './write.ts'

export interface Command {
  /** How it is called, for the help. */
  readonly usage: string
  readonly about: string
  run(args: readonly string[], streams: Streams): Promise<Exit>
}

export const COMMANDS: Readonly<Record<string, Command>> = {
  check: { usage: 'check FILE [--json]', about: 'prints what is wrong with the page', run: check },
  example: { usage: 'example', about: 'prints a complete, valid page package', run: example },
  'export-site': {
    usage: 'export-site --out DIR [--site ID]',
    about: 'writes the published site as a plain folder, for any static host',
    run: exportSite,
  },
  order: {
    usage: 'order FILE [--json]',
    about: 'prints the reading order and the arrangement of each grid section at every size',
    run: order,
  },
  read: {
    usage: 'read FILE',
    about: 'prints an HTML or Markdown file as a page of blocks, and what was not taken over',
    run: read,
  },
  render: {
    usage: 'render FILE --out DIR',
    about: 'writes index.html, the stylesheet, media and fonts',
    run: render,
  },
  schema: {
    usage: 'schema [--site]',
    about: "prints the package's JSON Schema (2020-12), or that of a site package",
    run: schema,
  },
  sweep: {
    usage: 'sweep FILE [--json]',
    about: 'prints what is wrong with the page at which widths, as Chromium lays it out',
    run: sweep,
  },
  validate: {
    usage: 'validate FILE',
    about: 'prints every problem of a package with its JSON pointer',
    run: validate,
  },
  write: {
    usage: 'write FILE --as html|markdown|json',
    about: 'prints what the page says, for other programs',
    run: write,
  },
}
