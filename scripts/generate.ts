/**
 * Makes what is made from other files. Compiles every schema of the block kinds into plain JavaScript, core/generated/validators.js. Ajv compiles with
 * `new Function`, which the editor's content security policy forbids, so it runs here, at build time, and never in
 * the browser; bundles the scripts that blocks bring to visitors, core/generated/behaviours.js; and writes docs/help.md.
 */
import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { basename, dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Ajv2020 } from 'ajv/dist/2020.js'
import standalone from 'ajv/dist/standalone/index.js'
import { build } from 'esbuild'
import { partSchema } from '../core/src/blocks/define-block.ts'
import { ANNOTATIONS, SHARED_SCHEMA } from '../core/src/blocks/fields.ts'
import { BLOCK_KINDS } from '../core/src/blocks/kinds/index.ts'
import { checkName, NODE_PARTS } from '../core/src/blocks/registry.ts'
import { EDIT_SCHEMA } from '../core/src/edits/edit-schema.ts'
import { PACKAGE_SHAPE_SCHEMA } from '../core/src/exchange/package-schema.ts'
import { helpText } from './help-text.ts'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const folder = join(root, 'core/generated')
const require = createRequire(import.meta.url)

const ajv = new Ajv2020({
  // The first fault of each part is enough to refuse it; looking for all would let a sender choose how long that takes.
  allErrors: false,
  // Formatted text is in most kinds: written once, and not in each.
  inlineRefs: false,
  strictTuples: false,
  strictTypes: false,
  discriminator: true,
  schemas: [SHARED_SCHEMA],
  code: { source: true, esm: true },
})
ajv.addVocabulary([...ANNOTATIONS])

const names: Record<string, string> = {}
for (const definition of BLOCK_KINDS) {
  for (const part of NODE_PARTS) {
    const name = checkName(definition.kind, part)
    ajv.addSchema({ $id: name, ...partSchema(definition, part) })
    names[name] = name
  }
}

ajv.addSchema({ $id: 'package_shape', ...PACKAGE_SHAPE_SCHEMA })
names.package_shape = 'package_shape'

ajv.addSchema({ $id: 'edit_shape', ...EDIT_SCHEMA })
names.edit_shape = 'edit_shape'

const source = standaloneCode(ajv, names)
const bundled = await build({
  stdin: { contents: source, resolveDir: dirname(require.resolve('ajv/package.json')), loader: 'js' },
  bundle: true,
  format: 'esm',
  write: false,
  banner: { js: '// Made by scripts/generate.ts from the schemas of the block kinds.' },
})
await mkdir(folder, { recursive: true })
await writeIfChanged(join(folder, 'validators.js'), bundled.outputFiles[0]!.text)
await writeIfChanged(
  join(folder, 'validators.d.ts'),
  [
    'export interface SchemaError { instancePath: string; message?: string; params: Record<string, unknown> }',
    'interface Validator { (value: unknown): boolean; errors?: SchemaError[] | null }',
    ...Object.keys(names).map((name) => `export const ${name}: Validator`),
    '',
  ].join('\n'),
)

// What visitors' browsers run where a block asks for it: plain scripts, each on its own.
const behaviours: Record<string, string> = {}
for (const file of (await readdir(join(root, 'core/behaviours')))
  .filter((name) => name.endsWith('.ts'))
  .sort()) {
  const built = await build({
    entryPoints: [join(root, 'core/behaviours', file)],
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    write: false,
  })
  behaviours[basename(file, '.ts')] = built.outputFiles[0]!.text
}
await writeIfChanged(
  join(folder, 'behaviours.js'),
  `// Made by scripts/generate.ts from core/behaviours.\nexport const behaviours = ${JSON.stringify(behaviours, undefined, 2)}\n`,
)
await writeIfChanged(
  join(folder, 'behaviours.d.ts'),
  'export const behaviours: Readonly<Record<string, string>>\n',
)

await writeIfChanged(join(root, 'docs/help.md'), helpText())

type Generate = (instance: Ajv2020, exported: Record<string, string>) => string

/** The package is CommonJS whose default export arrives wrapped or not, by who loads it. */
function standaloneCode(instance: Ajv2020, exported: Record<string, string>): string {
  const loaded: unknown = standalone
  const generate = (loaded as { default?: Generate }).default ?? (loaded as Generate)
  return generate(instance, exported)
}

/** Leaves the file alone when it would be the same, so that what is built from it stays up to date. */
async function writeIfChanged(file: string, content: string): Promise<void> {
  const before = await readFile(file, 'utf8').catch(() => undefined)
  if (before !== content) await writeFile(file, content)
}
