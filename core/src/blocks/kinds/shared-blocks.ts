import { defineBlock } from '../define-block.ts'
import { sharedRootOf } from '../linked-parts.ts'

/** The root of a shared section that is made of blocks. */
export const sharedBlocks = defineBlock(sharedRootOf('shared-blocks', 'flow'))
