import { defineBlock } from '../define-block.ts'
import { instanceOf } from '../linked-parts.ts'

/** Stands where a shared section of whole sections is shown. */
export const linkedSections = defineBlock(instanceOf('linked-sections', 'section'))
