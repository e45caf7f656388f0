let siteId: string | undefined

/** Says which site this tab works on: the server answers under its address. */
export function openSite(id: string | undefined): void {
  siteId = id
}

/** The address of something of the site, such as `inSite('/pages')`. */
export function inSite(path: string): string {
  return `/api/sites/${siteId ?? 'none'}${path}`
}
