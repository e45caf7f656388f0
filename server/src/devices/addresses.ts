/** Private addresses: where a page can be looked at from other devices, for a short time, as it stands in one tab of somebody who edits it. */
import { randomBytes } from 'node:crypto'
import { LessThan, type DataSource } from 'typeorm'
import { PrivateAddressEntity, type PrivateAddressRow } from '../db/shown-rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import type { JournalKey } from '../journal/store.ts'
import { findPageRow } from '../pages/store.ts'
import { hashOf } from '../people/sessions.ts'
import { Refused } from '../http/errors.ts'

/** As long as somebody goes round a desk with devices. */
const LASTS_MS = 60 * 60_000
/** 128 bits, which nobody guesses (NIST SP 800-63B-3, 7.1, asks a session's secret for 64), and short enough for a code that a phone reads at once. */
const TOKEN_BYTES = 16
/** What a token looks like in an address. */
export const TOKEN_PATTERN = '[A-Za-z0-9_-]{22}'
/** More at once than anybody has devices. */
const MOST_OF_PERSON = 20

/** An address that somebody was given, which nobody is told again. */
export interface MadeAddress {
  readonly token: string
  readonly expiresAt: Date
}

interface ToMake extends JournalKey {
  /** The hash of the session that asks. */
  readonly session: string
}

/** Makes a private address of a page as it stands in a tab. The one that the tab had before, if any, ends. */
export async function makeAddress(
  at: SiteData,
  { session, ...key }: ToMake,
  now = Date.now(),
): Promise<MadeAddress> {
  await findPageRow(at, key.documentId)
  const { manager, siteId } = at
  await manager.delete(PrivateAddressEntity, { expiresAt: LessThan(new Date(now)) })
  await manager.delete(PrivateAddressEntity, { ...key })
  if ((await manager.countBy(PrivateAddressEntity, { personId: key.personId })) >= MOST_OF_PERSON)
    throw new Refused(
      'busy',
      `You have ${MOST_OF_PERSON} private addresses at once. End one of them, or wait until it ends by itself.`,
    )
  const token = randomBytes(TOKEN_BYTES).toString('base64url')
  const expiresAt = new Date(now + LASTS_MS)
  await manager.insert(PrivateAddressEntity, {
    tokenHash: hashOf(token),
    siteId,
    ...key,
    sessionHash: session,
    expiresAt,
  })
  return { token, expiresAt }
}

/** Ends the private address of a page in a tab. Does nothing where there is none. */
export async function endAddress(at: SiteData, key: JournalKey): Promise<void> {
  await findPageRow(at, key.documentId)
  await at.manager.delete(PrivateAddressEntity, { ...key })
}

/** Returns what an address shows; undefined where it has ended or never was, or its maker works on the site no more. */
export async function findAddress(
  { manager }: DataSource,
  token: string,
  now = Date.now(),
): Promise<PrivateAddressRow | undefined> {
  const row = await manager
    .createQueryBuilder(PrivateAddressEntity, 'a')
    .innerJoin('sessions', 's', 's.token_hash = a.session_hash AND s.expires_at > :now', {
      now: new Date(now),
    })
    .innerJoin('site_people', 'w', 'w.site_id = a.site_id AND w.person_id = a.person_id')
    .where('a.token_hash = :hash AND a.expires_at > :now', { hash: hashOf(token) })
    .getOne()
  return row ?? undefined
}
