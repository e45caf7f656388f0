import { later } from '../../ui/later.ts'

/** What the canvas has beside the page: comes once the page is there. */
export const gridCanvas = later(() => import('./grid-canvas.ts'))
