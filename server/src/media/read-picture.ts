/** What was uploaded, told by its bytes and not by its name, within limits, and harmless. */
import type { DOMPurify } from 'dompurify'
import { fileTypeFromBuffer } from 'file-type'
import sharp from 'sharp'
import { Refused } from '../http/errors.ts'
import { MOST_BYTES } from './limits.ts'

/** Most pixels once it is opened: three times what a good camera makes. */
const MOST_PIXELS = 60_000_000

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
  if (width * height > MOST_PIXELS) {
    throw new Refused(
      'too-large',
      `The picture has ${width} by ${height} pixels; at most ${MOST_PIXELS / 1e6} million are taken. It was not added; make it smaller first.`,
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
  const clean = Buffer.from(await cleanSvg(text))
  const { width = 0, height = 0 } = await sharp(clean, { limitInputPixels: MOST_PIXELS })
    .metadata()
    .catch(() => {
      throw refused('Nothing was left of the drawing after everything that could run was taken out of it')
    })
  if (width === 0 || height === 0) throw refused('The drawing has no size')
  return { type: 'drawing', bytes: clean, width, height }
}

let sanitiser: Promise<DOMPurify> | undefined

/**
 * A drawing without anything that could run or reach elsewhere: DOMPurify with its profile for SVG, and no links to
 * other files at all. A drawing is only ever shown as a picture, where browsers run nothing either (SVG Integration,
 * "secure static mode"); both hold.
 */
async function cleanSvg(text: string): Promise<string> {
  sanitiser ??= makeSanitiser()
  const purify = await sanitiser
  const clean = purify.sanitize(text, {
    USE_PROFILES: { svg: true, svgFilters: true },
    FORBID_TAGS: ['style', 'script', 'foreignObject', 'image', 'a', 'animate', 'set'],
    FORBID_ATTR: ['style'],
  })
  return /xmlns=/.test(clean) ? clean : clean.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"')
}

/** Half a second's work, which a server that starts need not wait for: most sites never see a drawing. */
async function makeSanitiser(): Promise<DOMPurify> {
  const [{ default: createDOMPurify }, { JSDOM }] = await Promise.all([import('dompurify'), import('jsdom')])
  const purify = createDOMPurify(new JSDOM('').window)
  purify.addHook('afterSanitizeAttributes', (node) => {
    for (const name of ['href', 'xlink:href']) {
      const value = node.getAttribute(name)
      if (value !== null && !value.startsWith('#')) node.removeAttribute(name)
    }
    for (const { name, value } of [...node.attributes]) {
      if (/url\(\s*['"]?\s*(?!['"]?#)/i.test(value)) node.removeAttribute(name)
    }
  })
  return purify
}

function refused(why: string): Refused {
  return new Refused(
    'not-valid',
    `${why}. It was not added; JPEG, PNG, WebP, AVIF, GIF, TIFF and SVG pictures are taken.`,
  )
}
