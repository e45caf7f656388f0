/** What a visitor's request is answered with, by RFC 9110 (HTTP Semantics) and RFC 9111 (HTTP Caching). */
import { listsTag } from '../http/etag.ts'
import type { Coding, SiteFile, SiteFiles } from './site-files.ts'

export interface VisitorRequest {
  readonly method: string
  /** The path and the query, as they were sent. */
  readonly url: string
  /** Lower-case names. */
  readonly header: (name: string) => string | undefined
}

export interface VisitorAnswer {
  readonly status: number
  readonly headers: Readonly<Record<string, string>>
  /** The bytes, or a part of a file to read them from; undefined for an answer without a body. */
  readonly body?: Buffer | { readonly path: string; readonly start: number; readonly end: number }
}

/** Named by what is in them: browsers need never ask again. */
const NAMED_BY_CONTENT = /^\/(?:styles|scripts|fonts|media|files|icons)\//
const FOR_EVER = 'public, max-age=31536000, immutable'
/** Under an address that stays the same: asked for each time, and answered in a few bytes while nothing changed. */
const ASKED_FOR = 'no-cache'
/** What people added to link to is handed over as a file, and never shown as a page of this address. */
const LIBRARY_FILE = /^\/files\/[^/]+\/[^/]+$/

const NOT_FOUND_FILE = '/404.html'

/** Answers one request. `origin` is the address of the site, for redirects. */
export async function answerVisitor(site: SiteFiles, request: VisitorRequest): Promise<VisitorAnswer> {
  if (request.method !== 'GET' && request.method !== 'HEAD')
    return { status: 405, headers: { Allow: 'GET, HEAD', 'Content-Length': '0' } }
  const [asked = '/', query] = request.url.split('?', 2)
  const path = decode(asked)
  if (path === undefined) return notFound(site, request)
  const file = await site.find(path.endsWith('/') ? `${path}index.html` : path)
  if (file) return answerFile(file, path, request)
  const folder = path.endsWith('/') ? path : `${path}/`
  const old = site.oldAddress(folder)
  if (old !== undefined) return moved(encodeURI(old))
  if (folder !== path && (await site.find(`${folder}index.html`)))
    return moved(encodeURI(folder) + (query === undefined ? '' : `?${query}`))
  return notFound(site, request)
}

/** The path in plain characters; undefined for one that leads outside or is not one. */
function decode(asked: string): string | undefined {
  try {
    const path = decodeURIComponent(asked)
    const isPlain = path.startsWith('/') && !path.includes('\\') && !path.includes('\0')
    return isPlain && !path.split('/').some((part) => part === '..' || part === '.') ? path : undefined
  } catch {
    return undefined
  }
}

function moved(to: string): VisitorAnswer {
  return { status: 301, headers: { Location: to, 'Content-Length': '0' } }
}

const PLAIN_NOT_FOUND = Buffer.from(
  '<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>Page not found</title></head>' +
    '<body><h1>Page not found</h1><p><a href="/">Go to the home page</a></p></body></html>\n',
)

async function notFound(site: SiteFiles, request: VisitorRequest): Promise<VisitorAnswer> {
  const file = await site.find(NOT_FOUND_FILE)
  const [coding, bytes] = file?.bytes ? coded(file.bytes, request) : (['identity', PLAIN_NOT_FOUND] as const)
  return {
    status: 404,
    headers: {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Length': String(bytes.length),
      'Cache-Control': ASKED_FOR,
      Vary: 'Accept-Encoding',
      ...(coding === 'identity' ? {} : { 'Content-Encoding': coding }),
    },
    ...(request.method === 'HEAD' ? {} : { body: bytes }),
  }
}

function answerFile(file: SiteFile, path: string, request: VisitorRequest): VisitorAnswer {
  const range = request.header('range')
  const isRange = range !== undefined && request.method === 'GET' && isRangeWanted(file, request)
  const [coding, bytes] =
    file.bytes && !isRange ? coded(file.bytes, request) : (['identity', file.bytes?.identity] as const)
  const tag = tagOf(file, coding)
  const always: Record<string, string> = {
    ETag: tag,
    'Last-Modified': file.modified.toUTCString(),
    'Cache-Control': NAMED_BY_CONTENT.test(path) ? FOR_EVER : ASKED_FOR,
    ...(file.bytes && Object.keys(file.bytes).length > 1 ? { Vary: 'Accept-Encoding' } : {}),
  }
  const refused = precondition(file, request)
  if (refused === 304) return { status: 304, headers: always }
  if (refused === 412) return { status: 412, headers: { ...always, 'Content-Length': '0' } }
  const headers = {
    ...always,
    'Content-Type': file.type,
    'Accept-Ranges': 'bytes',
    ...(coding === 'identity' ? {} : { 'Content-Encoding': coding }),
    ...(LIBRARY_FILE.test(path) ? { 'Content-Disposition': 'attachment' } : {}),
  }
  const part = isRange ? partOf(range, file.size) : undefined
  if (part === 'unsatisfiable')
    return {
      status: 416,
      headers: { ...always, 'Content-Range': `bytes */${file.size}`, 'Content-Length': '0' },
    }
  const { start, end } = part ?? { start: 0, end: (bytes?.length ?? file.size) - 1 }
  const body = bytes ? bytes.subarray(start, end + 1) : { path: file.path, start, end }
  return {
    status: part ? 206 : 200,
    headers: {
      ...headers,
      'Content-Length': String(end - start + 1),
      ...(part ? { 'Content-Range': `bytes ${start}-${end}/${file.size}` } : {}),
    },
    ...(request.method === 'HEAD' || end < start ? {} : { body }),
  }
}

function tagOf(file: SiteFile, coding: Coding): string {
  return coding === 'identity' ? `"${file.tag}"` : `"${file.tag}-${coding}"`
}

/** The best coding that there is and that is taken (RFC 9110, 12.5.3). */
function coded(bytes: NonNullable<SiteFile['bytes']>, { header }: VisitorRequest): readonly [Coding, Buffer] {
  const accepted = header('accept-encoding') ?? ''
  for (const coding of ['br', 'gzip'] as const) {
    const found = bytes[coding]
    if (found && takes(accepted, coding)) return [coding, found]
  }
  return ['identity', bytes.identity!]
}

function takes(accepted: string, coding: string): boolean {
  const weights = accepted.split(',').map((one) => {
    const [name = '', ...parameters] = one
      .trim()
      .toLowerCase()
      .split(/\s*;\s*/)
    const weight = parameters.find((parameter) => parameter.startsWith('q='))
    return [name, weight === undefined ? 1 : Number(weight.slice(2))] as const
  })
  const own = weights.find(([name]) => name === coding || (coding === 'gzip' && name === 'x-gzip'))
  return (own ?? weights.find(([name]) => name === '*'))?.[1] ? true : false
}

/** The preconditions in their order (RFC 9110, 13.2.2): the status they end the request with, or undefined. */
function precondition(file: SiteFile, { header, method }: VisitorRequest): 304 | 412 | undefined {
  const [ifMatch, ifNone] = [header('if-match'), header('if-none-match')]
  if (ifMatch !== undefined) {
    if (!lists(ifMatch, file, true)) return 412
  } else if (isLater(file.modified, header('if-unmodified-since'))) return 412
  if (ifNone !== undefined) return lists(ifNone, file, false) ? 304 : undefined
  const since = header('if-modified-since')
  const isSame = since !== undefined && isDate(since) && !isLater(file.modified, since)
  return isSame && (method === 'GET' || method === 'HEAD') ? 304 : undefined
}

/** Whether a list of tags names a representation of the file. */
function lists(value: string, file: SiteFile, isStrong: boolean): boolean {
  const own = new Set((['identity', 'br', 'gzip'] as const).map((coding) => tagOf(file, coding)))
  return listsTag(value, own, { isStrong })
}

function isDate(value: string): boolean {
  return !Number.isNaN(Date.parse(value))
}

/** Dates of HTTP have whole seconds. */
function isLater(modified: Date, than: string | undefined): boolean {
  if (than === undefined || !isDate(than)) return false
  return Math.floor(modified.getTime() / 1000) > Math.floor(Date.parse(than) / 1000)
}

/** Whether a part is still wanted: not where the file has changed since (RFC 9110, 13.1.5, If-Range). */
function isRangeWanted(file: SiteFile, { header }: VisitorRequest): boolean {
  const value = header('if-range')
  if (value === undefined) return true
  return value.startsWith('"')
    ? value === tagOf(file, 'identity')
    : isDate(value) && Math.floor(file.modified.getTime() / 1000) === Math.floor(Date.parse(value) / 1000)
}

/** One range of bytes (RFC 9110, 14.1.2). Undefined for anything else, which is ignored as 14.2 allows. */
function partOf(
  value: string,
  size: number,
): { readonly start: number; readonly end: number } | 'unsatisfiable' | undefined {
  const found = /^bytes=\s*(\d*)\s*-\s*(\d*)\s*$/.exec(value)
  if (!found || (found[1] === '' && found[2] === '')) return undefined
  const [first, last] = [found[1]!, found[2]!]
  if (first === '') {
    const length = Number(last)
    return length === 0 || size === 0 ? 'unsatisfiable' : { start: Math.max(0, size - length), end: size - 1 }
  }
  const start = Number(first)
  if (last !== '' && Number(last) < start) return undefined
  if (start >= size) return 'unsatisfiable'
  return { start, end: Math.min(size - 1, last === '' ? size - 1 : Number(last)) }
}
