/** The registry with all block kinds of this program, and the checks that were generated from their schemas. */
import { edit_shape } from '../../generated/edit-validator.js'
import * as validators from '../../generated/node-validators.js'
import { BLOCK_KINDS } from './kinds/index.ts'
import { createRegistry, type SchemaCheck, type SchemaChecks } from './registry.ts'
import { checkOf } from './schema-check.ts'

const checks: SchemaChecks = Object.fromEntries(
  Object.entries(validators).map(([name, validate]) => [name, checkOf(validate)]),
)

export const defaultRegistry = createRegistry(BLOCK_KINDS, checks)

/** Checks the shape of an edit that was stored or sent; see edits/edit-schema.ts. */
export const checkEditShape: SchemaCheck = checkOf(edit_shape)
