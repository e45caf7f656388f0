/** Tables as TypeORM knows them: columns only. The schema itself is made by the migrations. */
import { EntitySchema } from 'typeorm'
import type { Role } from '@gullyline/core'
import { id } from './columns.ts'

export interface SiteRow {
  id: string
  /** The name that visitors find it under; null for the site that is found under every other one. */
  host: string | null
  name: string
  language: string
  /** A `Look`. Documents are `object` here, since TypeORM's types do not end on recursive ones. */
  look: object
  /** The documents that stand above and below every page. */
  headerId: string
  footerId: string
  homePageId: string
  /** The page that visitors get where there is none; null until the server has added it. */
  notFoundPageId: string | null
  /** The picture that icons are made of; null for one made of the name. */
  icon: string | null
  /** The picture shown where a page without one of its own is shared. */
  sharePicture: string | null
  /** So many pages at the top stand in the navigation by themselves. */
  navigationLimit: number
  /** A list of `NavigationItem`. */
  navigation: object
  /** The release that visitors see; null before anything was published. */
  releaseId: string | null
  /** Given by the database: sites are told in this order. */
  beganAt?: Date
}

export interface PageRow {
  id: string
  siteId: string
  parentId: string | null
  position: number
  title: string
  slug: string
  /** The whole address, which no other page of the site has; null in the bin. */
  address: string | null
  description: string
  inNavigation: boolean
  /** A `PageMore`. Like title, description and `inNavigation`, a copy of what the newest version says. */
  more: object
  /** All text of the newest version, to search in; null until the server has read it. */
  words: string | null
  /** When it went to the bin; null while it stands in the tree. */
  binnedAt: Date | null
  /** The page that took it to the bin: itself, or the one it stood under. */
  binnedWith: string | null
}

/** An address that a live page had before. */
export interface RedirectRow {
  siteId: string
  path: string
  pageId: string
}

export interface MediaRow {
  id: string
  siteId: string
  name: string
  alt: string
  width: number
  height: number
  /** Widths in px for which AVIF and WebP files are kept, narrow to wide; none for drawings. */
  widths: number[]
  isDecoration: boolean
  /** The file for browsers that read neither, and for drawings the drawing. */
  fallback: string
  /** Another one for every file that takes its place. */
  revision: number
  /** The revision before, whose files stay for pages that are open somewhere; null where it was never replaced. */
  previous: number | null
  /** Tells pictures whose files are the same (see `madeFrom`); null for drawings, and where it is not known. */
  madeFrom: string | null
}

/** A file that pages link to. */
export interface FileRow {
  id: string
  siteId: string
  name: string
  /** An ending such as "pdf", by what its bytes are. */
  type: string
  bytes: number
  /** What the file itself is called, in its folder and in its address. */
  file: string
  /** Another one for every file that takes its place. */
  revision: number
  /** The revision before, whose files stay for pages that are open somewhere; null where it was never replaced. */
  previous: number | null
}

export interface PersonRow {
  id: string
  login: string
  name: string
  role: Role
  /** Argon2id, in the PHC string format. */
  passwordHash: string
  createdAt: Date
}

/** Somebody who works on a site. */
export interface SitePersonRow {
  siteId: string
  personId: string
}

export interface SessionRow {
  /** SHA-256 of the token, in hex: who reads the table can't sign in with it. */
  tokenHash: string
  personId: string
  startedAt: Date
  /** When it was last used, to the hour. */
  usedAt: Date
  expiresAt: Date
  /** What the browser says it is. */
  device: string
}

export interface JournalRow {
  documentId: string
  personId: string
  /** The tab of a browser that the edits were made in. */
  tab: string
  number: number
  base: number
  at: Date
  /** Versions of shared sections that it stands on, by their names; null in entries from before those could be edited. */
  shared: object | null
  /** A list of `Edit`. */
  edits: object
  /** When it was first offered to somebody after its tab was closed; null until then. */
  offeredAt: Date | null
}

export const SiteEntity = new EntitySchema<SiteRow>({
  name: 'Site',
  tableName: 'sites',
  columns: {
    id: { ...id, primary: true },
    host: { type: 'varchar', length: 253, nullable: true },
    name: { type: 'varchar', length: 200 },
    language: { type: 'varchar', length: 35 },
    look: { type: 'json' },
    headerId: { ...id, name: 'header_id' },
    footerId: { ...id, name: 'footer_id' },
    homePageId: { ...id, name: 'home_page_id' },
    notFoundPageId: { ...id, name: 'not_found_page_id', nullable: true },
    icon: { ...id, nullable: true },
    sharePicture: { ...id, name: 'share_picture', nullable: true },
    navigation: { type: 'json' },
    navigationLimit: { type: 'int', name: 'navigation_limit', default: 100 },
    releaseId: { ...id, name: 'release_id', nullable: true },
    beganAt: {
      type: 'datetime',
      precision: 3,
      name: 'began_at',
      default: () => 'CURRENT_TIMESTAMP(3)',
    },
  },
  indices: [{ name: 'sites_host', columns: ['host'], unique: true }],
})

export const PageEntity = new EntitySchema<PageRow>({
  name: 'Page',
  tableName: 'pages',
  columns: {
    id: { ...id, primary: true },
    siteId: { ...id, name: 'site_id' },
    parentId: { ...id, name: 'parent_id', nullable: true },
    position: { type: 'int' },
    title: { type: 'varchar', length: 200 },
    slug: { type: 'varchar', length: 100 },
    address: { type: 'varchar', length: 700, nullable: true },
    description: { type: 'varchar', length: 500 },
    inNavigation: { type: 'boolean', name: 'in_navigation' },
    more: { type: 'json' },
    // Long, and wanted by the search alone.
    words: { type: 'mediumtext', nullable: true, select: false },
    binnedAt: { type: 'datetime', precision: 3, name: 'binned_at', nullable: true },
    binnedWith: { ...id, name: 'binned_with', nullable: true },
  },
  indices: [
    { name: 'pages_address', columns: ['siteId', 'address'], unique: true },
    { name: 'pages_order', columns: ['siteId', 'parentId', 'position'] },
    { name: 'pages_navigation', columns: ['siteId', 'inNavigation'] },
  ],
  foreignKeys: [
    {
      target: 'Document',
      columnNames: ['id'],
      referencedColumnNames: ['id'],
      name: 'fk_pages_document',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
    {
      target: 'Site',
      columnNames: ['siteId'],
      referencedColumnNames: ['id'],
      name: 'fk_pages_site',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
  ],
})

export const RedirectEntity = new EntitySchema<RedirectRow>({
  name: 'Redirect',
  tableName: 'redirects',
  columns: {
    siteId: { ...id, primary: true, name: 'site_id' },
    path: { type: 'varchar', length: 700, primary: true },
    pageId: { ...id, name: 'page_id' },
  },
  foreignKeys: [
    {
      target: 'Page',
      columnNames: ['pageId'],
      referencedColumnNames: ['id'],
      name: 'fk_redirects_page',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
  ],
})

export const MediaEntity = new EntitySchema<MediaRow>({
  name: 'Media',
  tableName: 'media',
  columns: {
    id: { ...id, primary: true },
    siteId: { ...id, name: 'site_id' },
    name: { type: 'varchar', length: 200 },
    alt: { type: 'varchar', length: 1000 },
    width: { type: 'int' },
    height: { type: 'int' },
    widths: { type: 'json' },
    isDecoration: { type: 'boolean', name: 'is_decoration' },
    fallback: { type: 'varchar', length: 20 },
    revision: { type: 'int' },
    previous: { type: 'int', nullable: true },
    madeFrom: { type: 'varchar', length: 64, name: 'made_from', nullable: true },
  },
  indices: [{ name: 'media_made_from', columns: ['madeFrom'] }],
  foreignKeys: [
    {
      target: 'Site',
      columnNames: ['siteId'],
      referencedColumnNames: ['id'],
      name: 'fk_media_site',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
  ],
})

export const FileEntity = new EntitySchema<FileRow>({
  name: 'File',
  tableName: 'files',
  columns: {
    id: { ...id, primary: true },
    siteId: { ...id, name: 'site_id' },
    name: { type: 'varchar', length: 200 },
    type: { type: 'varchar', length: 8 },
    bytes: { type: 'int' },
    file: { type: 'varchar', length: 100 },
    revision: { type: 'int' },
    previous: { type: 'int', nullable: true },
  },
  foreignKeys: [
    {
      target: 'Site',
      columnNames: ['siteId'],
      referencedColumnNames: ['id'],
      name: 'fk_files_site',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
  ],
})

export const PersonEntity = new EntitySchema<PersonRow>({
  name: 'Person',
  tableName: 'people',
  columns: {
    id: { ...id, primary: true },
    login: { type: 'varchar', length: 100 },
    name: { type: 'varchar', length: 100 },
    role: { type: 'varchar', length: 20 },
    passwordHash: { type: 'varchar', length: 255, name: 'password_hash' },
    createdAt: { type: 'datetime', precision: 3, name: 'created_at' },
  },
  indices: [{ name: 'people_login', columns: ['login'], unique: true }],
})

export const SitePersonEntity = new EntitySchema<SitePersonRow>({
  name: 'SitePerson',
  tableName: 'site_people',
  columns: {
    siteId: { ...id, primary: true, name: 'site_id' },
    personId: { ...id, primary: true, name: 'person_id' },
  },
  foreignKeys: [
    {
      target: 'Site',
      columnNames: ['siteId'],
      referencedColumnNames: ['id'],
      name: 'fk_site_people_site',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
    {
      target: 'Person',
      columnNames: ['personId'],
      referencedColumnNames: ['id'],
      name: 'fk_site_people_person',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
  ],
})

export const SessionEntity = new EntitySchema<SessionRow>({
  name: 'Session',
  tableName: 'sessions',
  columns: {
    tokenHash: { type: 'varchar', length: 64, primary: true, name: 'token_hash' },
    personId: { ...id, name: 'person_id' },
    startedAt: { type: 'datetime', precision: 3, name: 'started_at' },
    usedAt: { type: 'datetime', precision: 3, name: 'used_at' },
    expiresAt: { type: 'datetime', precision: 3, name: 'expires_at' },
    device: { type: 'varchar', length: 100 },
  },
  foreignKeys: [
    {
      target: 'Person',
      columnNames: ['personId'],
      referencedColumnNames: ['id'],
      name: 'fk_sessions_person',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
  ],
})

export const JournalEntity = new EntitySchema<JournalRow>({
  name: 'JournalEntry',
  tableName: 'journal_entries',
  columns: {
    documentId: { ...id, primary: true, name: 'document_id' },
    personId: { ...id, primary: true, name: 'person_id' },
    tab: { ...id, primary: true },
    number: { type: 'int', primary: true },
    base: { type: 'int' },
    at: { type: 'datetime', precision: 3 },
    shared: { type: 'json', nullable: true },
    edits: { type: 'json' },
    offeredAt: { type: 'datetime', precision: 3, name: 'offered_at', nullable: true },
  },
  indices: [{ name: 'journal_offered', columns: ['offeredAt'] }],
  foreignKeys: [
    {
      target: 'Document',
      columnNames: ['documentId'],
      referencedColumnNames: ['id'],
      name: 'fk_journal_document',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
    {
      target: 'Person',
      columnNames: ['personId'],
      referencedColumnNames: ['id'],
      name: 'fk_journal_person',
      onDelete: 'CASCADE',
      onUpdate: 'NO ACTION',
    },
  ],
})
