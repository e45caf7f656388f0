import { package_shape } from '../../generated/package-validator.js'
import type { SchemaCheck } from '../blocks/registry.ts'
import { checkOf } from '../blocks/schema-check.ts'

/** Checks the shape of a page package; see page-package.ts. */
export const checkPackageShape: SchemaCheck = checkOf(package_shape)
