import { mutate } from 'swr'
import type { Look, SiteInfo } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'

/** Sends another look for the site; refused where somebody else changed it meanwhile. */
export async function saveLook(look: Look, was: Look): Promise<void> {
  const body = { look, was: { look: was } }
  const saved = request<SiteInfo>(inSite('/settings'), { method: 'PUT', body })
  await mutate(inSite(''), saved, { revalidate: false })
}
