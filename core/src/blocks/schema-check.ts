/** Validators that Ajv generated, as checks that give problems with sentences for people. */
import type { SchemaError, Validator } from '../../generated/node-validators.js'
import type { Problem, SchemaCheck } from './registry.ts'

export function checkOf(validate: Validator): SchemaCheck {
  return (value) => (validate(value) ? [] : (validate.errors ?? []).map(toProblem))
}

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
