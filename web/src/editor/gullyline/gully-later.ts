import { later } from '../../ui/later.ts'

/** What measures pages, and shows what was found. */
export const gullyCode = later(() => import('./gully-code.ts'))
