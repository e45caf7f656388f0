/** A link to a page of the site, which follows that page when its address changes, or to an address elsewhere. */
export type Link = { readonly page: string; readonly anchor?: string } | { readonly href: string }

export function isPageLink(link: Link): link is Extract<Link, { page: string }> {
  return 'page' in link
}
