import type { GullyRule } from '../define-rule.ts'
import { NOTHING, seenOf } from '../geometry.ts'
import type { MeasuredBand, MeasuredPicture, Box } from '../measured-page.ts'

/** A picture that is drawn larger than its file has pixels for. */
export const blurredPicture: GullyRule = {
  rule: 'blurred-picture',
  title: 'Blurred picture',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ band }) =>
    pictures(band).flatMap(({ id, picture, needed }) =>
      needed <= picture.natural.width + NOTHING
        ? []
        : [
            {
              id,
              amount: needed / picture.natural.width,
              why: `The picture is ${picture.natural.width} pixels wide and shown ${Math.round(needed)} px wide`,
            },
          ],
    ),
}

/** More than so many times the pixels that are shown are waste. */
const MOST = 2

/** A picture of which a much larger file is loaded than is shown, though a smaller one would do. */
export const heavyPicture: GullyRule = {
  rule: 'heavy-picture',
  title: 'Picture larger than shown',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ band }) =>
    pictures(band).flatMap(({ id, picture, needed }) => {
      const loaded = loadedFile(picture)
      const isWaste = loaded > MOST * needed && picture.files.some((file) => file >= needed && file < loaded)
      if (!isWaste) return []
      return [
        {
          id,
          amount: loaded / needed,
          why: `A picture ${loaded} pixels wide is loaded, and shown ${Math.round(needed)} px wide`,
        },
      ]
    }),
}

/** Which file browsers load on a screen of one pixel for each px: the first that is as wide as they are told (HTML standard, "Images"). */
function loadedIndex({ files, told }: MeasuredPicture): number {
  const wideEnough = files.findIndex((file) => file >= told)
  return wideEnough < 0 ? files.length - 1 : wideEnough
}

function loadedFile(picture: MeasuredPicture): number {
  return picture.files[loadedIndex(picture)] ?? picture.natural.width
}

/** The addresses of the pictures' files that browsers load for a band, each once. */
export function loadedAddresses(band: MeasuredBand): readonly string[] {
  const all = band.elements.flatMap(({ picture }) =>
    picture ? [picture.addresses[loadedIndex(picture)] ?? picture.source] : [],
  )
  return [...new Set(all)]
}

function pictures(band: MeasuredBand) {
  return band.elements.flatMap(({ id, picture, box }, index) => {
    if (!picture || !seenOf(band, index, box)) return []
    return [{ id, picture, needed: drawnWidth(picture, box) }]
  })
}

/** How wide the whole picture is drawn, with what of it is cut away. */
export function drawnWidth(
  { fit, natural }: Pick<MeasuredPicture, 'fit' | 'natural'>,
  { width, height }: Box,
): number {
  const ratio = natural.width / natural.height
  if (fit === 'cover') return Math.max(width, height * ratio)
  if (fit === 'contain') return Math.min(width, height * ratio)
  return width
}
