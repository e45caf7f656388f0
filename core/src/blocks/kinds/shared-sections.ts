import { defineBlock } from '../define-block.ts'
import { sharedRootOf } from '../linked-parts.ts'

/** The root of a shared section that is made of whole sections. */
export const sharedSections = defineBlock(sharedRootOf('shared-sections', 'section'))
