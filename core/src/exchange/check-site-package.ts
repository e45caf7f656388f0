import { site_package_shape } from '../../generated/site-package-validator.js'
import type { SchemaCheck } from '../blocks/registry.ts'
import { checkOf } from '../blocks/schema-check.ts'

/** Checks the shape of a site package; see site-package.ts. */
export const checkSitePackageShape: SchemaCheck = checkOf(site_package_shape)
