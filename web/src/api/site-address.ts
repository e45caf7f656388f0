/** Which site this tab works on. The first one of a person is at the root; others have their id in the address. */
const IN_ADDRESS = /^\/sites\/([a-z0-9]{1,24})(?=\/|$)/

const named = IN_ADDRESS.exec(globalThis.location?.pathname ?? '')?.[1]

let siteId: string | undefined

/** The id of the site that the address of this tab names; undefined where it names none. */
export const siteInAddress: string | undefined = named

/** What the addresses of all screens of this tab begin with, without a slash at the end. */
export const base: string = named === undefined ? '' : `/sites/${named}`

/** The address of a screen, without what all of this tab begin with. */
export function screenPath(pathname: string): string {
  return pathname.replace(IN_ADDRESS, '') || '/'
}

/** The address at which somebody finds the screens of a site. `first` is the site at the root. */
export function addressOfSite(id: string, first: string | undefined): string {
  return id === first ? '/' : `/sites/${id}/`
}

/** Says which site this tab works on: the server answers under its address. */
export function openSite(id: string | undefined): void {
  siteId = id
}

/** The address of something of the site, such as `inSite('/pages')`. */
export function inSite(path: string): string {
  return `/api/sites/${siteId ?? 'none'}${path}`
}

/** The address of something of another site that the person works on. */
export function inOtherSite(id: string, path: string): string {
  return `/api/sites/${id}${path}`
}

/** Tells what a browser remembers of a site from the same of another one; empty for the first site. */
export const rememberedOf: string = named === undefined ? '' : `${named}.`
