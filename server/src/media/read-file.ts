/** What kind of file was uploaded, told by its bytes and not by its name. */
import { fileTypeFromBuffer } from 'file-type'
import { Refused } from '../http/errors.ts'

/** Documents to read, fill in, hear or put into a calendar. Nothing among them runs by itself when it is opened. */
const TAKEN = new Set(['pdf', 'odt', 'ods', 'odp', 'docx', 'xlsx', 'pptx', 'epub', 'ics', 'mp3'])
/** Words without a mark of what they are: here the name is believed, since nothing but words can be meant. */
const WORDS = new Set(['txt', 'csv'])

/** The ending that fits what the bytes are. Refuses what is of no kind that is taken. */
export async function readFileType(name: string, bytes: Buffer): Promise<string> {
  if (bytes.length === 0) throw refused('It is empty')
  // What begins like a known type and breaks off is of no type.
  const found = await fileTypeFromBuffer(bytes).catch(() => undefined)
  if (found && TAKEN.has(found.ext)) return found.ext
  if (found)
    throw refused(`By its bytes it is of the kind ${found.ext.toUpperCase()}, whatever its name says`)
  const ending = name.slice(name.lastIndexOf('.') + 1).toLowerCase()
  if (WORDS.has(ending) && isWords(bytes)) return ending
  throw refused('It is of no kind that is known here')
}

/** UTF-8 without control characters, and not the beginning of a page that a browser would show. */
function isWords(bytes: Buffer): boolean {
  const text = decode(bytes)
  return text !== undefined && !/[\u0000-\u0008\u000e-\u001f]/.test(text) && !/^\s*</.test(text)
}

function decode(bytes: Buffer): string | undefined {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return undefined
  }
}

function refused(why: string): Refused {
  return new Refused(
    'not-valid',
    `${why}. It was not added; PDF, OpenDocument, Office, EPUB, MP3, calendar, TXT and CSV files are taken.`,
  )
}
