import { later } from '../../ui/later.ts'

/** The text editor and its bar, which a page can be opened and looked at without. */
export const textEditing = later(() => import('./text-editing.ts'))
