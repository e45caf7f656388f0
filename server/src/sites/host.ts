/** Names of sites in addresses, such as `school.example.org`. */

const LONGEST = 253

/**
 * Returns a name as addresses have it: in small letters, and those of other scripts in ASCII (URL Standard, "host
 * parser"). Undefined for what is no name of a host, and for the number of a machine.
 */
export function plainHost(given: string): string | undefined {
  const wanted = given.trim()
  if (/[\s/:@?#\\[\]%]/.test(wanted) || !URL.canParse(`http://${wanted}/`)) return undefined
  const { hostname } = new URL(`http://${wanted}/`)
  // RFC 1123, 2.1: letters, digits and hyphens; a last label that is a number would be the address of a machine.
  const isName = /^(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)*[a-z](?:[a-z0-9-]{0,61}[a-z0-9])?$/.test(
    hostname,
  )
  return isName && hostname.length <= LONGEST ? hostname : undefined
}
