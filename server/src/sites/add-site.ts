/** Adding a site to the installation, and the names that visitors find sites under. */
import { languageFault, type NewSiteRequest, type Person } from '@gullyline/core'
import { isDuplicate } from '../db/is-duplicate.ts'
import { SiteEntity } from '../db/rows.ts'
import type { SiteChange, SiteScope } from '../db/site-scope.ts'
import { beginSite } from './begin-site.ts'
import { findSite, lockSite } from '../documents/site-row.ts'
import { Refused } from '../http/errors.ts'
import { writeHosts } from '../publish/site-hosts.ts'
import type { Services } from '../services.ts'
import { completeSite } from './complete-site.ts'
import { plainHost } from './host.ts'
import { checkedSiteName } from './settings.ts'

const NO_HOST = 'A site’s address is a name such as school.example.org, without https:// and without a path.'

/**
 * Adds a site with one empty page, in the look of another one, for the person who asks and those they name. Refuses a name
 * that another site is found under.
 */
export async function addSite(
  services: Services,
  like: SiteScope,
  given: NewSiteRequest,
  by: Person,
): Promise<SiteScope> {
  const host = checkedHost(services, given.host)
  const name = checkedSiteName(given.name)
  const fault = languageFault(given.language)
  if (fault) throw notValid('language', fault)
  const { look } = await like.read(findSite)
  const people = [by.id, ...given.people]
  const site = await taken(host, () =>
    beginSite(services, { name, language: given.language, host, look, people }),
  )
  await completeSite(services, site)
  await writeHosts(services)
  return site
}

/** Has visitors find a site under another name. Returns false where it has that name already. */
export async function changeHost(services: Services, site: SiteScope, wanted: string): Promise<boolean> {
  const host = checkedHost(services, wanted)
  const change = async (at: SiteChange): Promise<boolean> => {
    const { host: before } = await lockSite(at)
    if (before === null)
      throw new Refused(
        'not-valid',
        'This site is found under the address that the server was started with (GULLYLINE_SITE_ORIGIN). Nothing was changed.',
      )
    await at.manager.update(SiteEntity, { id: at.siteId }, { host })
    return before !== host
  }
  const isOther = await taken(host, () => site.change(['site'], change))
  if (isOther) await writeHosts(services)
  return isOther
}

function checkedHost({ liveOrigin, editorOrigin }: Services, given: string): string {
  const host = plainHost(given)
  if (host === undefined) throw notValid('host', NO_HOST)
  const others = [liveOrigin, editorOrigin].flatMap((one) => (one === undefined ? [] : new URL(one).hostname))
  if (others.includes(host)) throw isTaken(host)
  return host
}

async function taken<T>(host: string, write: () => Promise<T>): Promise<T> {
  try {
    return await write()
  } catch (error) {
    throw isDuplicate(error) ? isTaken(host) : error
  }
}

function isTaken(host: string): Refused {
  return new Refused('address-taken', `“${host}” is the address of another site. Nothing was changed.`, {
    problems: [{ pointer: '/host', message: 'is the address of another site' }],
  })
}

function notValid(field: string, message: string): Refused {
  return new Refused('not-valid', `${message} Nothing was changed.`, {
    problems: [{ pointer: `/${field}`, message }],
  })
}
