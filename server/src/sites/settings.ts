/** What the site's administrator sets for all pages. */
import { languageFault, type Look, type SiteSettings, type SiteSettingsRequest } from '@gullyline/core'
import { MediaEntity, SiteEntity, type SiteRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { refuseStale } from '../http/refuse-stale.ts'
import { lockSite } from '../documents/site-row.ts'
import type { SiteData } from '../db/site-scope.ts'

const LONGEST_NAME = 100

/**
 * Changes settings of the site; settings that are not given stay. Refuses, with `stale-save`, a change of a value that is
 * no longer what the sender saw (`was`). Returns whether visitors see anything of the change.
 */
export async function changeSiteSettings(
  at: SiteData,
  { was, ...wanted }: SiteSettingsRequest,
): Promise<boolean> {
  const site = await lockSite(at)
  const now = settingsOfSite(site)
  refuseStale({ now: { ...now }, was: { ...was }, wanted, by: 'Someone else' })
  const { ownValues, ...next } = { ...now, ...wanted }
  const name = checkedSiteName(next.name)
  const fault = languageFault(next.language)
  if (fault) throw notValid('language', fault)
  for (const key of ['icon', 'sharePicture'] as const) await assertPicture(at, key, next[key])
  const look = ownValues === now.ownValues ? site.look : { ...site.look, ownValues }
  await at.manager.update(SiteEntity, { id: site.id }, { ...next, name, look })
  return (['name', 'language', 'icon', 'sharePicture'] as const).some((key) => next[key] !== now[key])
}

/** The name of a site in one line; refuses one that is empty or too long. */
export function checkedSiteName(given: string): string {
  const name = given.replace(/\s+/g, ' ').trim()
  if (name === '' || name.length > LONGEST_NAME)
    throw notValid('name', `A site name has 1 to ${LONGEST_NAME} characters.`)
  return name
}

function settingsOfSite({
  name,
  language,
  icon,
  sharePicture,
  look,
  navigationLimit,
}: SiteRow): SiteSettings {
  const ownValues = (look as Look).ownValues === true
  return { name, language, icon, sharePicture, ownValues, navigationLimit }
}

async function assertPicture(at: SiteData, key: string, id: string | null): Promise<void> {
  if (id !== null && !(await at.manager.existsBy(MediaEntity, { siteId: at.siteId, id })))
    throw notValid(key, 'This picture is not in the library.')
}

function notValid(key: string, message: string): Refused {
  return new Refused('not-valid', `${message} Nothing was changed.`, {
    problems: [{ pointer: `/${key}`, message }],
  })
}
