import { ownValuesOf } from '../blocks/node-own-values.ts'
import type { Check, CheckInput, Found } from './define-check.ts'

/** A custom measure or colour, on a site whose keeper allows them. */
export const ownValues: Check = {
  rule: 'own-value',
  severity: 'warning',
  source: 'common practice, no source',
  find: (input) =>
    input.site.look.ownValues === true
      ? found(
          input,
          (title, value) => `“${title}” is ${value}, a custom value that the look of the site does not have`,
        )
      : [],
}

/** The same on a site whose keeper does not. */
export const strayValues: Check = {
  rule: 'stray-value',
  severity: 'error',
  source: 'common practice, no source',
  find: (input) =>
    input.site.look.ownValues === true
      ? []
      : found(
          input,
          (title, value) => `“${title}” is ${value}; this site takes values of its look alone. Put it back`,
        ),
}

function found(
  { nodes, registry }: CheckInput,
  words: (title: string, value: string) => string,
): readonly Found[] {
  return nodes.flatMap(({ id, node }) =>
    ownValuesOf(node, registry).map(({ title, value }) => ({ nodeId: id, message: words(title, value) })),
  )
}
