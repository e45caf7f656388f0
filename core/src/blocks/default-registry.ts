/** The registry with all block kinds of this program, and the checks that were generated from their schemas. */
import * as validators from '../../generated/validators.js'
import type { SchemaError } from '../../generated/validators.js'
import { BLOCK_KINDS } from './kinds/index.ts'
import { createRegistry, type Problem, type SchemaCheck, type SchemaChecks } from './registry.ts'

const checks: SchemaChecks = Object.fromEntries(
  Object.entries(validators).map(([name, validate]): [string, SchemaCheck] => [
    name,
    (value) => (validate(value) ? [] : (validate.errors ?? []).map(toProblem)),
  ]),
)

export const defaultRegistry = createRegistry(BLOCK_KINDS, checks)

/** Checks the shape of a page package; see exchange/page-package.ts. */
export const checkPackageShape: SchemaCheck = checks.package_shape!

/** Checks the shape of an edit that was stored or sent; see edits/edit-schema.ts. */
export const checkEditShape: SchemaCheck = checks.edit_shape!

function toProblem(error: SchemaError): Problem {
  return { pointer: error.instancePath, message: sentence(error) }
}

function sentence({ message = 'is not valid', params }: SchemaError): string {
  if ('additionalProperty' in params) return `must not have the field "${String(params.additionalProperty)}"`
  if ('allowedValues' in params)
    return `must be one of ${(params.allowedValues as unknown[]).map(String).join(', ')}`
  return message
    .replace(/^must NOT have more than (\d+)/, (_all, most: string) => `can have at most ${withCommas(most)}`)
    .replace(
      /^must NOT have fewer than (\d+)/,
      (_all, least: string) => `needs at least ${withCommas(least)}`,
    )
}

function withCommas(digits: string): string {
  return digits.replace(/\B(?=(\d{3})+$)/g, ',')
}
