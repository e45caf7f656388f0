/**
 * The slot of a page's root that parts hang in which are edited with the page; see site/session-page.ts. The root of each
 * has the id of its document. No page is stored with it, and no layout shows it.
 */
export const JOINED_PARTS = 'parts'
