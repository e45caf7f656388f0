import { convertsTo, gridOf, type Registry } from '@gullyline/core'
import type { EditorState } from '../session/editor-state.ts'
import type { CommandId } from './command-list.ts'

const GRID_GROUPS: readonly (readonly CommandId[])[] = [
  ['grid-left', 'grid-right', 'grid-up', 'grid-down'],
  ['forward', 'backward', 'to-front', 'to-back'],
  ['make-room', 'close-up', 'derive-place'],
  ['reading-path', 'agree-order'],
]
const ALIGN_GROUPS: readonly (readonly CommandId[])[] = [
  ['align-left', 'align-centre', 'align-right', 'align-top', 'align-middle', 'align-bottom'],
  ['distribute-across', 'distribute-down'],
]
const CONVERT: readonly CommandId[] = ['convert-section']

/** What a menu offers for blocks of a grid section, for several of them, and for sections of both kinds. */
export function gridMenu(
  { page, selection, also }: Pick<EditorState, 'page' | 'selection' | 'also'>,
  registry: Registry,
): readonly (readonly CommandId[])[] {
  if (selection === undefined) return []
  const isInGrid = gridOf(page, selection, registry) !== undefined
  return [
    ...(isInGrid ? GRID_GROUPS : []),
    ...(isInGrid && also.length > 0 ? ALIGN_GROUPS : []),
    ...(convertsTo(page, selection, registry) ? [CONVERT] : []),
  ]
}
