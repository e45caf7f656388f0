/** `@jest/globals` refuses to be loaded outside of Jest's own worlds: tests that run in Node's get the same functions. */
const OURS = new URL('globals.mjs', import.meta.url).href

export function resolve(specifier, context, next) {
  return specifier === '@jest/globals' ? { url: OURS, shortCircuit: true } : next(specifier, context)
}
