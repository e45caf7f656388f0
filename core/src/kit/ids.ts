/** The id of a page's own content, which the link past the navigation leads to. */
export const CONTENT_ID = 'content'
