/** The people who work on a site. */
import type { SitePerson } from '@gullyline/core'
import { PersonEntity, SitePersonEntity } from '../db/rows.ts'
import { renew } from '../db/revisions.ts'
import type { SiteData } from '../db/site-scope.ts'
import { lockSite } from '../documents/site-row.ts'
import { Refused } from '../http/errors.ts'
import { addToSites } from '../people/site-people.ts'

/** Everybody with an account by name, and whether they work on a site. */
export async function listSitePeople(at: SiteData): Promise<SitePerson[]> {
  const people = await at.manager.find(PersonEntity, { order: { name: 'ASC' } })
  const here = await at.manager.findBy(SitePersonEntity, { siteId: at.siteId })
  const ids = new Set(here.map(({ personId }) => personId))
  return people.map(({ id, login, name, role }) => ({ id, login, name, role, isHere: ids.has(id) }))
}

/** Has a person work on a site. Refuses an id that nobody has. */
export async function addToSite(at: SiteData, personId: string): Promise<void> {
  if (!(await at.manager.existsBy(PersonEntity, { id: personId }))) throw nobody()
  await addToSites(at.manager, personId, [at.siteId])
}

/** Takes a person from a site. Refuses the last keeper, without whom nobody could bring anybody back. */
export async function takeFromSite(at: SiteData, personId: string): Promise<void> {
  // Of two keepers who take each other away at once, the second finds the first gone.
  await lockSite(at)
  const people = (await listSitePeople(at)).filter(({ isHere }) => isHere)
  const person = people.find(({ id }) => id === personId)
  if (!person) throw nobody()
  if (person.role === 'keeper' && people.filter(({ role }) => role === 'keeper').length === 1)
    throw new Refused(
      'not-valid',
      `${person.name} is the last keeper of this site. Nothing was changed; have another keeper work on it first.`,
    )
  await at.manager.delete(SitePersonEntity, { siteId: at.siteId, personId })
  await renew(at.manager, ['people'])
}

function nobody(): Refused {
  return new Refused('not-found', 'There is no such person here. Nothing was changed.')
}
