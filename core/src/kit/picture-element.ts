import type { Picture } from './site-context.ts'
import { el, type Element } from './element.ts'

/** How a picture is shown at one place. */
export interface PictureUse {
  /** Empty for decoration. */
  readonly alt: string
  /** The `sizes` attribute: how wide the picture is laid out at each screen width. */
  readonly sizes: string | undefined
  readonly early: boolean | undefined
  /** Loaded with the page, though not first: its place comes into sight with that of others. */
  readonly isShownAtOnce?: boolean
}

/**
 * A `picture` with a source for each modern format and a fallback (HTML standard, "Images"). Width and height are
 * those of the file, so that the browser keeps the right room before it has loaded.
 */
export function pictureElement(picture: Picture, use: PictureUse): Element {
  const source = (type: 'avif' | 'webp') =>
    el('source', {
      type: `image/${type}`,
      srcSet: picture.sources.map((one) => `${one[type]} ${one.width}w`).join(', '),
      sizes: use.sizes ?? '100vw',
    })
  return el(
    'picture',
    {},
    picture.sources.length > 0 && [source('avif'), source('webp')],
    el('img', {
      src: picture.fallback,
      alt: use.alt,
      width: picture.width,
      height: picture.height,
      ...loadingOf(use),
    }),
  )
}

function loadingOf({ early = false, isShownAtOnce = false }: PictureUse) {
  if (early) return { fetchPriority: 'high' }
  return isShownAtOnce ? { decoding: 'async' } : { loading: 'lazy', decoding: 'async' }
}

/** The alternative text of a picture at one place: the place's own word first, then what the library says of it. */
export function altOf(
  picture: Picture,
  {
    alt,
    decoration = false,
  }: { readonly alt?: string | undefined; readonly decoration?: boolean | undefined },
): string {
  if (decoration) return ''
  return alt || (picture.isDecoration ? '' : picture.alt)
}
