import type { Picture } from '@gullyline/core'

/** The smallest file there is of a picture. */
export function thumbnail(picture: Picture): string {
  return picture.sources[0]?.webp ?? picture.fallback
}
