import {
  defaultRegistry,
  packageContext,
  renderPage,
  WRITTEN_FORMATS,
  writeHtml,
  writeJson,
  writeMarkdown,
  type WrittenFormat,
} from '@gullyline/core'
import { fileAndOptions } from './arguments.ts'
import { EXIT, Unusable, type Exit, type Streams } from './outcome.ts'
import { readPackage } from './read-package.ts'

const USAGE = `write FILE --as ${WRITTEN_FORMATS.join('|')}`

/** Prints what a page says, in a format of other programs. */
export async function write(args: readonly string[], { out }: Streams): Promise<Exit> {
  const { file, values } = fileAndOptions(args, { as: { type: 'string' } }, USAGE)
  const format = WRITTEN_FORMATS.find((one) => one === values.as)
  if (!format) throw new Unusable(`usage: ${USAGE}`)
  const given = await readPackage(file)
  const context = { ...packageContext(given), purpose: 'publish' as const }
  const facts = { title: given.title, description: given.description, language: given.site.language }
  const html = (): string => renderPage(given, defaultRegistry, context, 'inline').html
  const text: Readonly<Record<WrittenFormat, () => string>> = {
    html: () => writeHtml(html(), facts),
    markdown: () => writeMarkdown(html()),
    json: () => `${JSON.stringify(writeJson(given.page, facts, defaultRegistry, context), undefined, 2)}\n`,
  }
  out(text[format]())
  return EXIT.done
}
