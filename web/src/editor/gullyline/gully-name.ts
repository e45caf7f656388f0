import type { Gully } from '@gullyline/core'

/** What a gully is told by, on one version of a page and on another. */
export function gullyName({ rule, nodeId }: Gully): string {
  return `${rule} ${nodeId}`
}
