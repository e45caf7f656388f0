import { defineBlock } from '../define-block.ts'
import { instanceOf } from '../linked-parts.ts'

/** Stands where a shared section of blocks is shown. */
export const linkedBlocks = defineBlock(instanceOf('linked-blocks', 'flow'))
