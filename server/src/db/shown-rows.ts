/** The tables of what is shown of pages elsewhere: at private addresses, and when the server measures them. */
import { EntitySchema } from 'typeorm'
import { cascading, id, moment } from './columns.ts'

/** What was measured of a live page. */
export interface PageSweepRow {
  pageId: string
  siteId: string
  /** The key of what the page was made from; see `PageRecord`. */
  madeFrom: string
  sweptAt: Date
  /** A list of `Gully`; null where the page could not be measured. */
  gullies: object | null
}

/** Where a page can be looked at from other devices, as it stands in one tab of somebody who edits it. */
export interface PrivateAddressRow {
  /** SHA-256 of the token in the address, in hex. */
  tokenHash: string
  siteId: string
  documentId: string
  personId: string
  tab: string
  /** The session that it was made in, and ends with. */
  sessionHash: string
  expiresAt: Date
}

export const PageSweepEntity = new EntitySchema<PageSweepRow>({
  name: 'PageSweep',
  tableName: 'page_sweeps',
  columns: {
    pageId: { ...id, primary: true, name: 'page_id' },
    siteId: { ...id, name: 'site_id' },
    madeFrom: { type: 'varchar', length: 32, name: 'made_from' },
    sweptAt: { ...moment, name: 'swept_at' },
    gullies: { type: 'json', nullable: true },
  },
  foreignKeys: [
    {
      target: 'Page',
      columnNames: ['pageId'],
      referencedColumnNames: ['id'],
      name: 'fk_page_sweeps_page',
      ...cascading,
    },
  ],
})

export const PrivateAddressEntity = new EntitySchema<PrivateAddressRow>({
  name: 'PrivateAddress',
  tableName: 'private_addresses',
  columns: {
    tokenHash: { type: 'varchar', length: 64, primary: true, name: 'token_hash' },
    siteId: { ...id, name: 'site_id' },
    documentId: { ...id, name: 'document_id' },
    personId: { ...id, name: 'person_id' },
    tab: { ...id },
    sessionHash: { type: 'varchar', length: 64, name: 'session_hash' },
    expiresAt: { ...moment, name: 'expires_at' },
  },
  foreignKeys: [
    {
      target: 'Document',
      columnNames: ['documentId'],
      referencedColumnNames: ['id'],
      name: 'fk_private_addresses_document',
      ...cascading,
    },
    {
      target: 'Session',
      columnNames: ['sessionHash'],
      referencedColumnNames: ['tokenHash'],
      name: 'fk_private_addresses_session',
      ...cascading,
    },
  ],
})
