/**
 * Makes the code that is made from other files. Compiles the schemas of block kinds, edits and packages into plain
 * JavaScript, core/generated: Ajv compiles with `new Function`, which the editor's content security policy forbids, so it
 * runs here, at build time, and never in the browser. And bundles the scripts that visitors' browsers run, those that read
 * a measured page, and those of the simulated device.
 */
import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { basename, dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Ajv, type Options } from 'ajv'
import { Ajv2020 } from 'ajv/dist/2020.js'
import standalone from 'ajv/dist/standalone/index.js'
import { build } from 'esbuild'
import { partSchema } from '../core/src/blocks/define-block.ts'
import { ANNOTATIONS, SHARED_SCHEMA } from '../core/src/kit/fields.ts'
import { BLOCK_KINDS } from '../core/src/blocks/kinds/index.ts'
import { checkName, NODE_PARTS } from '../core/src/blocks/registry.ts'
import { EDIT_SCHEMA } from '../core/src/edits/edit.ts'
import { PACKAGE_SHAPE_SCHEMA } from '../core/src/exchange/package-schema.ts'
import { SITE_PACKAGE_SHAPE } from '../core/src/exchange/site-package-schema.ts'
import { REQUEST_SCHEMAS } from '../core/src/wire/request-schemas.ts'
import { shareFields } from './share-fields.ts'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const folder = join(root, 'core/generated')
const require = createRequire(import.meta.url)

const OPTIONS: Options = {
  // The first fault of each part is enough to refuse it; looking for all would let a sender choose how long that takes.
  allErrors: false,
  // Formatted text is in most kinds: written once, and not in each.
  inlineRefs: false,
  strictTuples: false,
  strictTypes: false,
  discriminator: true,
  code: { source: true, esm: true },
}
// The schemas of nodes use only keywords that draft 7 has too, and Ajv writes half as much code for draft 7.
const ofNodes = new Ajv(OPTIONS)
ofNodes.addVocabulary([...ANNOTATIONS])
const ofMessages = new Ajv2020(OPTIONS)

const parts = BLOCK_KINDS.flatMap((definition) =>
  NODE_PARTS.map((part) => ({
    name: checkName(definition.kind, part),
    schema: partSchema(definition, part),
  })),
)
const shared = shareFields(parts.map(({ schema }) => schema))
// Each is a schema of its own, since Ajv compiles a definition inside of another schema again for every schema that
// refers to it.
for (const [name, definition] of Object.entries(SHARED_SCHEMA.$defs)) {
  ofNodes.addSchema(definition, `${SHARED_SCHEMA.$id}#/$defs/${name}`)
}
for (const [ref, field] of Object.entries(shared.fields)) ofNodes.addSchema(field, ref)
for (const [i, { name }] of parts.entries()) ofNodes.addSchema({ $id: name, ...shared.parts[i] })
ofMessages.addSchema({ $id: 'edit_shape', ...EDIT_SCHEMA })
ofMessages.addSchema({ $id: 'package_shape', ...PACKAGE_SHAPE_SCHEMA })
ofMessages.addSchema({ $id: 'site_package_shape', ...SITE_PACKAGE_SHAPE })
for (const schema of REQUEST_SCHEMAS) ofMessages.addSchema(schema)

await mkdir(folder, { recursive: true })
await writeValidators(
  'node-validators',
  ofNodes,
  parts.map(({ name }) => name),
)
await writeValidators('edit-validator', ofMessages, ['edit_shape'])
await writeValidators('package-validator', ofMessages, ['package_shape'])
await writeValidators('site-package-validator', ofMessages, ['site_package_shape'])
await writeValidators(
  'request-validators',
  ofMessages,
  REQUEST_SCHEMAS.map(({ $id }) => $id),
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

// What reads a page off a browser, for programs that start one.
const measuring = await build({
  entryPoints: [join(root, 'measuring/src/frame-sweep.ts')],
  bundle: true,
  minify: true,
  format: 'iife',
  globalName: 'gullyline',
  target: 'es2022',
  write: false,
})
await mkdir(join(root, 'measuring/generated'), { recursive: true })
await writeIfChanged(
  join(root, 'measuring/generated/script.js'),
  `// Made by scripts/generate.ts from measuring/src.\nexport const measuringScript = ${JSON.stringify(measuring.outputFiles[0]!.text)}\n`,
)
await writeIfChanged(join(root, 'measuring/generated/script.d.ts'), 'export const measuringScript: string\n')

// What runs on pages at private addresses, and in the simulated device.
const deviceScripts: Record<string, string> = {}
for (const name of ['follow', 'window']) {
  const built = await build({
    entryPoints: [join(root, 'server/device-pages', `${name}.ts`)],
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    write: false,
  })
  deviceScripts[name] = built.outputFiles[0]!.text
}
await mkdir(join(root, 'server/generated'), { recursive: true })
await writeIfChanged(
  join(root, 'server/generated/device-scripts.js'),
  `// Made by scripts/generate.ts from server/device-pages.\nexport const deviceScripts = ${JSON.stringify(deviceScripts, undefined, 2)}\n`,
)
await writeIfChanged(
  join(root, 'server/generated/device-scripts.d.ts'),
  "export const deviceScripts: Readonly<Record<'follow' | 'window', string>>\n",
)

/** Writes a module that exports a validator for each of the schemas. */
async function writeValidators(file: string, ajv: Ajv | Ajv2020, names: readonly string[]): Promise<void> {
  const source = standaloneCode(ajv, Object.fromEntries(names.map((name) => [name, name])))
  const bundled = await build({
    stdin: { contents: source, resolveDir: dirname(require.resolve('ajv/package.json')), loader: 'js' },
    bundle: true,
    format: 'esm',
    write: false,
    banner: { js: '// Made by scripts/generate.ts from the schemas of the block kinds.' },
  })
  await writeIfChanged(join(folder, `${file}.js`), bundled.outputFiles[0]!.text)
  const types = [
    'export interface SchemaError { instancePath: string; message?: string; params: Record<string, unknown> }',
    'export interface Validator { (value: unknown): boolean; errors?: SchemaError[] | null }',
    ...names.map((name) => `export const ${name}: Validator`),
    '',
  ]
  await writeIfChanged(join(folder, `${file}.d.ts`), types.join('\n'))
}

type Generate = (instance: Ajv | Ajv2020, exported: Record<string, string>) => string

/** The package is CommonJS whose default export arrives wrapped or not, by who loads it. */
function standaloneCode(instance: Ajv | Ajv2020, exported: Record<string, string>): string {
  const loaded: unknown = standalone
  const generate = (loaded as { default?: Generate }).default ?? (loaded as Generate)
  return generate(instance, exported)
}

/** Leaves the file alone when it would be the same, so that what is built from it stays up to date. */
async function writeIfChanged(file: string, content: string): Promise<void> {
  const before = await readFile(file, 'utf8').catch(() => undefined)
  if (before !== content) await writeFile(file, content)
}
