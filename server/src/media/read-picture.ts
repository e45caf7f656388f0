/** What was uploaded, told by its bytes and not by its name, within limits, and harmless. */
import { fileTypeFromBuffer } from 'file-type'
import sharp from 'sharp'
import { Refused } from '../http/errors.ts'
import { drawings } from '../workers/pools.ts'
import { MOST_BYTES, MOST_PIXELS, LONGEST_SIDE } from '../http/limits.ts'

/** Picture formats that are taken, by the type that their first bytes tell. */
const RASTER = new Set(['image/jpeg', 'image/png', 'image/webp', 'image/avif', 'image/gif', 'image/tiff'])

/** A picture that may be kept: raster, or a drawing that has been cleaned. */
export type ReadPicture =
  | { readonly type: 'raster'; readonly bytes: Buffer; readonly hasAlpha: boolean }
  | { readonly type: 'drawing'; readonly bytes: Buffer; readonly width: number; readonly height: number }

/** Looks at what was uploaded. Refuses what is no picture, is too large, or can't be opened; cleans drawings of everything that could run. */
export async function readPicture(bytes: Buffer): Promise<ReadPicture> {
  if (bytes.length === 0) throw refused('It is empty')
  if (bytes.length > MOST_BYTES)
    throw new Refused(
      'too-large',
      `The file is larger than ${MOST_BYTES / 1024 / 1024} MB. It was not added.`,
    )
  // What begins like a known type and breaks off is of no type.
  const found = await fileTypeFromBuffer(bytes).catch(() => undefined)
  if (found && RASTER.has(found.mime)) return readRaster(bytes)
  if (!found || found.mime === 'application/xml') return readDrawing(bytes)
  throw refused(`Its bytes are those of a ${found.ext.toUpperCase()} file, whatever its name says`)
}

async function readRaster(bytes: Buffer): Promise<ReadPicture> {
  const {
    width = 0,
    height = 0,
    hasAlpha = false,
  } = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => {
      throw refused('It could not be opened; the file may be damaged')
    })
  if (width * height > MOST_PIXELS || Math.max(width, height) > LONGEST_SIDE) {
    throw new Refused(
      'too-large',
      `The picture has ${width} by ${height} pixels; at most ${MOST_PIXELS / 1e6} million are taken, and ${LONGEST_SIDE} on a side. It was not added; make it smaller first.`,
    )
  }
  return { type: 'raster', bytes, hasAlpha }
}

/** Drawings of more text than this take the sanitiser too long. */
const MOST_SVG_BYTES = 2 * 1024 * 1024

async function readDrawing(bytes: Buffer): Promise<ReadPicture> {
  const text = bytes.toString('utf8')
  if (!/<svg[\s>]/i.test(text.slice(0, 4096)))
    throw refused('It is neither a picture nor a drawing that is known here')
  if (bytes.length > MOST_SVG_BYTES)
    throw new Refused(
      'too-large',
      `The drawing is larger than ${MOST_SVG_BYTES / 1024 / 1024} MB. It was not added.`,
    )
  refuseComplex(text)
  const clean = Buffer.from(await cleanDrawing(text))
  const { width = 0, height = 0 } = await sharp(clean, { limitInputPixels: MOST_PIXELS })
    .metadata()
    .catch(() => {
      throw refused('Nothing was left of the drawing after everything that could run was taken out of it')
    })
  if (width === 0 || height === 0) throw refused('The drawing has no size')
  return { type: 'drawing', bytes: clean, width, height }
}

/** What a drawing may hold. The largest of the sample site has some 300 elements, 6 levels deep. */
const MOST_ELEMENTS = 20_000
const MOST_ATTRIBUTES = 100_000
const DEEPEST = 100
/** A drawing within these limits takes some 2 s at most; then it is given up. */
const CLEANING_MS = 10_000

/** Refuses a drawing that is deeper or larger than any that somebody drew, by its text alone: reading it would take minutes. */
function refuseComplex(text: string): void {
  let [depth, deepest, elements] = [0, 0, 0]
  for (const [tag] of text.matchAll(/<[/a-zA-Z][^<>]*>?/g)) {
    if (tag.startsWith('</')) depth--
    else {
      elements++
      if (!tag.endsWith('/>')) depth++
    }
    if (depth > deepest) deepest = depth
    if (elements > MOST_ELEMENTS || deepest > DEEPEST) break
  }
  const attributes = elements > MOST_ELEMENTS ? 0 : (text.match(/=\s*["']/g)?.length ?? 0)
  if (elements > MOST_ELEMENTS || deepest > DEEPEST || attributes > MOST_ATTRIBUTES)
    throw new Refused(
      'too-large',
      `The drawing is too complex: at most ${MOST_ELEMENTS} elements are taken, nested ${DEEPEST} deep. It was not added; simplify it first.`,
    )
}

async function cleanDrawing(text: string): Promise<string> {
  try {
    return await drawings.run<string>(text, CLEANING_MS)
  } catch (error) {
    if (error instanceof Refused) throw error
    const isLate = error instanceof Error && error.name === 'AbortError'
    throw refused(isLate ? 'The drawing took too long to read' : 'The drawing could not be read')
  }
}

function refused(why: string): Refused {
  return new Refused(
    'not-valid',
    `${why}. It was not added; JPEG, PNG, WebP, AVIF, GIF, TIFF and SVG pictures are taken.`,
  )
}
