/** A page of the site, and perhaps a place on it; the link follows the page when its address changes. */
type PageLink = { readonly page: string; readonly anchor?: string }
/** A file of the library; the link follows it when it is replaced. */
type FileLink = { readonly file: string }

/** Where a link leads: to a page of the site, to a file of the library, or to an address elsewhere. */
export type Link = PageLink | FileLink | { readonly href: string }

export function isPageLink(link: Link): link is PageLink {
  return 'page' in link
}

export function isFileLink(link: Link): link is FileLink {
  return 'file' in link
}
