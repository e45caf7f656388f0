/** What the canvas has beside the page: for blocks that stand in columns or on a grid section, and for what is dropped on it. */
export { CanvasDrops } from './canvas-drops.ts'
export { ColumnDividers } from './column-dividers.tsx'
export { gridMenu } from '../commands/grid-menu.ts'
export { dropInCell } from '../drag/drop-in-cell.ts'
export { GridHandles } from './grid-handles.tsx'
export { ReadingPath } from './reading-path.tsx'
