/** What the site's administrator sets for all pages. */
import {
  languageFault,
  sameJson,
  sizesFault,
  type FontFamily,
  type Json,
  type Look,
  type SiteSettings,
  type SiteSettingsRequest,
} from '@gullyline/core'
import { MediaEntity, SiteEntity, type SiteRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { refuseStale } from '../http/refuse-stale.ts'
import { lockSite } from '../documents/site-row.ts'
import type { SiteData } from '../db/site-scope.ts'

const LONGEST_NAME = 100
/** What visitors see of the settings, besides the look. */
const SHOWN = ['name', 'language', 'icon', 'sharePicture'] as const

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
  if (wanted.look) refuseOtherNames(wanted.look, now.look)
  const look = ownValues === now.ownValues ? next.look : { ...next.look, ownValues }
  await at.manager.update(SiteEntity, { id: site.id }, { ...next, name, look })
  const isOtherLook = !sameJson(next.look as unknown as Json, now.look as unknown as Json)
  return isOtherLook || SHOWN.some((key) => next[key] !== now[key])
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
  return { name, language, icon, sharePicture, ownValues, navigationLimit, look: look as Look }
}

/** Pages name colours, and fonts are files on this server: another look has at least those names, and no font that is not there. */
function refuseOtherNames(next: Look, now: Look): void {
  const missing = Object.keys(now.surfaces).find((name) => !Object.hasOwn(next.surfaces, name))
  if (missing !== undefined)
    throw notValid('look', `Pages use the colour “${now.surfaces[missing]!.title}”, which the look lacks.`)
  if (!Object.hasOwn(next.surfaces, next.pageSurface))
    throw notValid('look', 'The look has no colour of the name that pages begin with.')
  const there = Object.values(now.fonts)
  const isThere = (font: FontFamily): boolean =>
    there.some((one) => sameJson(one as unknown as Json, font as unknown as Json))
  if (!Object.values(next.fonts).every(isThere))
    throw notValid('look', 'The look has a font that is not on this server.')
  const fault = sizesFault(next)
  if (fault !== undefined) throw notValid('look', fault)
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
