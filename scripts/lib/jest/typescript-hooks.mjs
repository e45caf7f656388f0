import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { transform } from 'esbuild'

/** `@jest/globals` refuses to be loaded outside of Jest's own worlds: tests that run in Node's get the same functions. */
const GLOBALS = new URL('globals.mjs', import.meta.url).href

export function resolve(specifier, context, next) {
  return specifier === '@jest/globals' ? { url: GLOBALS, shortCircuit: true } : next(specifier, context)
}

/** Functions get no names written to them, as tsx does: in what runs a million times that takes half of the time. */
export async function load(url, context, next) {
  if (!/\.tsx?(\?|$)/.test(url)) return next(url, context)
  const path = fileURLToPath(new URL(url.replace(/\?.*$/, '')))
  const { code } = await transform(await readFile(path, 'utf8'), {
    loader: path.endsWith('x') ? 'tsx' : 'ts',
    jsx: 'automatic',
    format: 'esm',
    target: 'node20',
    sourcefile: path,
    sourcemap: 'inline',
  })
  return { format: 'module', source: code, shortCircuit: true }
}
