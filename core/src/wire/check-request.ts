import * as validators from '../../generated/request-validators.js'
import type { Validator } from '../../generated/node-validators.js'
import type { Problem } from '../blocks/registry.ts'
import { checkOf } from '../blocks/schema-check.ts'
import { requestShape, type Requests } from './request-schemas.ts'

/** Returns what is wrong with the shape of a request's body; nothing where it is right. */
export function checkRequest(name: keyof Requests, body: unknown): readonly Problem[] {
  const validate = (validators as Readonly<Record<string, Validator>>)[requestShape(name)]!
  return checkOf(validate)(body)
}
