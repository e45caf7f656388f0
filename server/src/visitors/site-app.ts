/**
 * The published site: files, and nothing but files. It shares neither port nor cookies nor code with the editor: cookies
 * know no ports (RFC 6265, 8.5), so the two are on different names of this machine, and a request to the editor's name is
 * redirected to the site's own.
 */
import { createReadStream } from 'node:fs'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { siteHeaders } from '../http/headers.ts'
import type { Services } from '../services.ts'
import { answerVisitor, type VisitorAnswer, type VisitorRequest } from './answer.ts'
import { VisitedSites, type VisitedSite } from './visited-sites.ts'

/** Answers requests as `fetch` has them, for tests. */
export interface SiteApp {
  request(url: string, init?: RequestInit): Promise<Response>
}

type Answer = (request: VisitorRequest, site: VisitedSite | undefined) => Promise<VisitorAnswer>

/** What answering visitors takes of the server. */
type VisitorServices = Pick<Services, 'dataDir' | 'liveOrigin'> & {
  /** The site that is found under the server's own name; others have names of theirs. */
  readonly siteId: string
  readonly log: { error(about: { err: unknown }, words: string): void }
}

function siteAnswers(services: VisitorServices): Answer {
  const security = siteHeaders(services)
  const answer: Answer = async (request, site) => {
    if (!site)
      return { status: 308, headers: { Location: services.liveOrigin + request.url, 'Content-Length': '0' } }
    return answerVisitor(site.files, request)
  }
  return async (request, site) => {
    const found = await answer(request, site).catch((error: unknown): VisitorAnswer => {
      services.log.error({ err: error }, 'A visitor could not be answered')
      return { status: 500, headers: { 'Content-Length': '0' } }
    })
    return { ...found, headers: { ...security, ...found.headers } }
  }
}

function hostOf(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase()
}

export function createSiteApp(services: VisitorServices): SiteApp {
  const answer = siteAnswers(services)
  const sites = new VisitedSites(services)
  return {
    async request(url, { method = 'GET', headers } = {}) {
      const asked = new URL(url)
      const sent = new Headers(headers)
      const request = {
        method,
        url: asked.pathname + asked.search,
        header: (name: string) => sent.get(name) ?? undefined,
      }
      const { status, headers: out, body } = await answer(request, sites.find(hostOf(asked.host)))
      const bytes =
        body && 'path' in body ? Readable.toWeb(createReadStream(body.path, body)) : (body ?? null)
      return new Response(bytes as ConstructorParameters<typeof Response>[0], { status, headers: out })
    },
  }
}

/** The sites on Node's own server: between a request and a file in memory stands nothing else. */
export function createSiteServer(services: VisitorServices): Server {
  const sites = new VisitedSites(services)
  const answer = siteAnswers(services)
  return createServer((request, response) => {
    const site = sites.find(hostOf(request.headers.host ?? ''))
    const release = site?.release
    const ready = site?.answers.find(request, release)
    if (ready) {
      response.writeHead(200, ready.headers as string[])
      return void response.end(ready.body)
    }
    const asked = {
      method: request.method ?? 'GET',
      url: request.url ?? '/',
      header: (name: string) => first(request, name),
    }
    void answer(asked, site).then((found) => {
      // Switched meanwhile, it may be of either release.
      if (site && site.files.release === release) site.answers.add(request, release, found)
      send(found, response)
    })
  })
}

function first({ headers }: IncomingMessage, name: string): string | undefined {
  const value = headers[name]
  return Array.isArray(value) ? value[0] : value
}

function send({ status, headers, body }: VisitorAnswer, response: ServerResponse): void {
  response.writeHead(status, headers)
  if (!body || !('path' in body)) return void response.end(body)
  // A visitor who leaves in the middle of a file ends no answer but their own.
  pipeline(createReadStream(body.path, body), response).catch(() => response.destroy())
}
