import { later } from '../../ui/later.ts'

/** Comes once the page is there. */
export const gridCanvas = later(() => import('./grid-canvas.ts'))
