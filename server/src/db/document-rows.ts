/** The tables of documents, their versions and what of them is live, as TypeORM knows them. */
import { EntitySchema } from 'typeorm'
import type { PartPurpose } from '@gullyline/core'
import { cascading, id, moment } from './columns.ts'

/** What can be edited as blocks. */
export type DocumentType = 'page' | 'header' | 'footer' | 'pattern' | 'shared' | 'template'

/** SQL that has some documents found by their ids, and not by looking through all of their site. */
export const BY_ID = 'FORCE INDEX (PRIMARY)'

export interface DocumentRow {
  id: string
  siteId: string
  type: DocumentType
  /** Number of the newest version. */
  version: number
  /** Whether it is recorded what its versions refer to; not so for documents from before that was. */
  usesKnown: boolean
}

export interface VersionRow {
  documentId: string
  number: number
  /** The number of the version that this one is stored as a difference from; null for one that is stored whole. */
  base: number | null
  /** See documents/states.ts. */
  state: Buffer
  /** What changed since the version before, in sentences: a list of strings. */
  changes: object
  savedAt: Date
  /** What the person was called then. */
  savedBy: string
  /** Null for what Gullyline saved by itself. */
  personId: string | null
  /** What the save called itself; null where it did not. */
  saveId: string | null
}

/** A state of the whole site that visitors saw or see. */
export interface ReleaseRow {
  /** Counts up: of two releases, the later one has the higher number. */
  number: number
  id: string
  siteId: string
  at: Date
  /** Null for what Gullyline published by itself. */
  personId: string | null
}

/** A document that went live with a release, or was taken from visitors with it. */
export interface ReleasedRow {
  documentId: string
  releaseNumber: number
  /** Null where it was taken from visitors. */
  version: number | null
}

/** What people say of a document that is used again on pages. */
export interface PartRow {
  id: string
  siteId: string
  name: string
  /** Its name while no other part can have it; null in the bin. */
  taken: string | null
  purpose: PartPurpose
  about: string
  /** When it went to the bin; null while it is offered. */
  binnedAt: Date | null
}

export const DocumentEntity = new EntitySchema<DocumentRow>({
  name: 'Document',
  tableName: 'documents',
  columns: {
    id: { ...id, primary: true },
    siteId: { ...id, name: 'site_id' },
    type: { type: 'varchar', length: 20 },
    version: { type: 'int' },
    usesKnown: { type: 'boolean', name: 'uses_known', default: false },
  },
  foreignKeys: [
    {
      target: 'Site',
      columnNames: ['siteId'],
      referencedColumnNames: ['id'],
      name: 'fk_documents_site',
      ...cascading,
    },
  ],
})

export const PartEntity = new EntitySchema<PartRow>({
  name: 'Part',
  tableName: 'parts',
  columns: {
    id: { ...id, primary: true },
    siteId: { ...id, name: 'site_id' },
    name: { type: 'varchar', length: 60 },
    taken: { type: 'varchar', length: 60, nullable: true },
    purpose: { type: 'varchar', length: 20 },
    about: { type: 'varchar', length: 200 },
    binnedAt: { type: 'datetime', precision: 3, name: 'binned_at', nullable: true },
  },
  indices: [{ name: 'parts_name', columns: ['siteId', 'taken'], unique: true }],
  foreignKeys: [
    {
      target: 'Document',
      columnNames: ['id'],
      referencedColumnNames: ['id'],
      name: 'fk_parts_document',
      ...cascading,
    },
    {
      target: 'Site',
      columnNames: ['siteId'],
      referencedColumnNames: ['id'],
      name: 'fk_parts_site',
      ...cascading,
    },
  ],
})

/** The id by which something that was imported is known where it came from. */
export interface OriginRow {
  siteId: string
  id: string
  origin: string
}

export const OriginEntity = new EntitySchema<OriginRow>({
  name: 'Origin',
  tableName: 'origins',
  columns: {
    siteId: { ...id, primary: true, name: 'site_id' },
    id: { ...id, primary: true },
    origin: { ...id },
  },
  indices: [{ name: 'origins_origin', columns: ['siteId', 'origin'], unique: true }],
  foreignKeys: [
    {
      target: 'Site',
      columnNames: ['siteId'],
      referencedColumnNames: ['id'],
      name: 'fk_origins_site',
      ...cascading,
    },
  ],
})

export const VersionEntity = new EntitySchema<VersionRow>({
  name: 'Version',
  tableName: 'versions',
  columns: {
    documentId: { ...id, primary: true, name: 'document_id' },
    number: { type: 'int', primary: true },
    base: { type: 'int', nullable: true },
    state: { type: 'mediumblob' },
    changes: { type: 'json' },
    savedAt: { ...moment, name: 'saved_at' },
    savedBy: { type: 'varchar', length: 100, name: 'saved_by' },
    personId: { ...id, name: 'person_id', nullable: true },
    saveId: { ...id, name: 'save_id', nullable: true },
  },
  foreignKeys: [
    {
      target: 'Document',
      columnNames: ['documentId'],
      referencedColumnNames: ['id'],
      name: 'fk_versions_document',
      ...cascading,
    },
  ],
})

export const ReleaseEntity = new EntitySchema<ReleaseRow>({
  name: 'Release',
  tableName: 'releases',
  columns: {
    number: { type: 'int', primary: true, generated: 'increment' },
    id: { ...id },
    siteId: { ...id, name: 'site_id' },
    at: { ...moment },
    personId: { ...id, name: 'person_id', nullable: true },
  },
  indices: [{ name: 'releases_id', columns: ['id'], unique: true }],
  foreignKeys: [
    {
      target: 'Site',
      columnNames: ['siteId'],
      referencedColumnNames: ['id'],
      name: 'fk_releases_site',
      ...cascading,
    },
  ],
})

export const ReleasedEntity = new EntitySchema<ReleasedRow>({
  name: 'Released',
  tableName: 'released_documents',
  columns: {
    documentId: { ...id, primary: true, name: 'document_id' },
    releaseNumber: { type: 'int', primary: true, name: 'release_number' },
    version: { type: 'int', nullable: true },
  },
  foreignKeys: [
    {
      target: 'Document',
      columnNames: ['documentId'],
      referencedColumnNames: ['id'],
      name: 'fk_released_document',
      ...cascading,
    },
    {
      target: 'Release',
      columnNames: ['releaseNumber'],
      referencedColumnNames: ['number'],
      name: 'fk_released_release',
      ...cascading,
    },
  ],
})
