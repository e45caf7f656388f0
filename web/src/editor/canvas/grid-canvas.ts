/** What the canvas has for blocks that stand in columns, or are placed on a grid section. */
export { ColumnDividers } from './column-dividers.tsx'
export { gridMenu } from '../commands/grid-menu.ts'
export { dropInCell } from '../drag/drop-in-cell.ts'
export { GridHandles } from './grid-handles.tsx'
export { landingOnGrid } from './grid-landing.ts'
export { ReadingPath } from './reading-path.tsx'
