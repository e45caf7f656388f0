/** The JSON Schemas (2020-12) of what the editor sends: the shape of each request. What the values may be, the server judges. */
import { LOOK_SCHEMA } from '../look/look-schema.ts'
import { MOST_NAVIGATION } from '../site/navigation.ts'
import { ID_PATTERN } from '../page/id.ts'
import { LONGEST_PART_ABOUT, LONGEST_PART_NAME, PART_PURPOSES } from '../reuse/part-facts.ts'
import { MOST_JOINED } from '../reuse/near-duplicates.ts'
import type { JoinAlikeRequest } from './alike.ts'
import type { ImportRequest } from './exchange.ts'
import type { JournalRequest, PresenceRequest } from './at-work.ts'
import type { NewPartRequest, PartRequest, ReplacePartRequest, SaveTemplateRequest } from './parts.ts'
import type {
  CopyPageRequest,
  MediaRequest,
  NewSiteRequest,
  NavigationRequest,
  NewPageRequest,
  PageMore,
  PageSettingsRequest,
  PasswordRequest,
  PlacePageRequest,
  PublishRequest,
  SaveRequest,
  SignInRequest,
  SiteHostRequest,
  SiteSettingsRequest,
} from './wire.ts'

/** The requests that have a body, by their names. */
export interface Requests {
  readonly signIn: SignInRequest
  readonly changePassword: PasswordRequest
  readonly presence: PresenceRequest
  readonly addPage: NewPageRequest
  readonly changePage: PageSettingsRequest
  readonly placePage: PlacePageRequest
  readonly copyPage: CopyPageRequest
  readonly savePage: SaveRequest
  readonly publishPage: PublishRequest
  readonly journal: JournalRequest
  readonly changePicture: MediaRequest
  readonly addPart: NewPartRequest
  readonly changePart: PartRequest
  readonly saveTemplate: SaveTemplateRequest
  readonly replacePart: ReplacePartRequest
  readonly joinAlike: JoinAlikeRequest
  readonly changeNavigation: NavigationRequest
  readonly changeSite: SiteSettingsRequest
  readonly addSite: NewSiteRequest
  readonly changeHost: SiteHostRequest
  readonly importPackage: ImportRequest
  /** Says all by its address. */
  readonly nothing: Record<string, never>
}

const id = { type: 'string', pattern: ID_PATTERN }
const idOrNull = { type: ['string', 'null'], pattern: ID_PATTERN }
const flag = { type: 'boolean' }
const text = { type: 'string' }
/** With something in it that can be seen. */
const words = { type: 'string', pattern: '\\S' }
const version = { type: 'integer', minimum: 0, maximum: 2 ** 31 - 1 }
/** Judged by the document's own rules. */
const document = { type: 'object' }

/** More than a page can show. */
const MOST_SHARED = 50
/** A tab that was offline for a day sends what it has in parts. */
const MOST_ENTRIES = 500
const MOST_TABS = 100
const MOST_PEOPLE = 1_000
const MOST_CHOICES = 60_000
const MOST_SURFACES = 500
/** Milliseconds since 1970, far beyond any clock that is right. */
const LATEST = 2 ** 42

interface Fields {
  readonly [name: string]: object
}

/** An object with these fields and no others; `optional` ones may be absent. */
function object(required: Fields, optional: Fields = {}) {
  return {
    type: 'object',
    properties: { ...required, ...optional },
    required: Object.keys(required),
    additionalProperties: false,
  }
}

/** A change: every field may be absent, and so may what the sender saw in each (`was`). */
function change(fields: Fields) {
  return object({}, { ...fields, was: object({}, fields) })
}

const versionsByName = {
  type: 'object',
  maxProperties: MOST_SHARED,
  propertyNames: { pattern: ID_PATTERN },
  additionalProperties: version,
}
const pageMore = {
  navigationLabel: text,
  theme: { type: ['string', 'null'], maxLength: 32 },
  isListed: flag,
  sharePicture: idOrNull,
} satisfies Record<keyof PageMore, object>
const pageValues = { title: words, description: text, inNavigation: flag }

const partFacts = {
  name: { ...words, maxLength: LONGEST_PART_NAME },
  purpose: { enum: Object.keys(PART_PURPOSES) },
  about: { ...text, maxLength: LONGEST_PART_ABOUT },
}

const SCHEMAS: Readonly<Record<keyof Requests, object>> = {
  signIn: object({ login: words, password: words }),
  changePassword: object({ present: words, password: words }),
  presence: object({
    tabs: { type: 'array', maxItems: MOST_TABS, items: object({ tab: id, pageId: id }) },
  }),
  addPage: object({ title: words, parentId: idOrNull }, { template: text }),
  changePage: object(
    {},
    {
      ...pageValues,
      slug: words,
      more: object({}, pageMore),
      was: object({}, { ...pageValues, ...pageMore }),
    },
  ),
  placePage: object({ parentId: idOrNull, position: { type: 'integer' } }),
  copyPage: object({ withSubPages: flag }),
  savePage: object(
    {
      base: version,
      journal: {
        type: ['object', 'null'],
        properties: { tab: id, until: { type: 'integer' } },
        required: ['tab', 'until'],
        additionalProperties: false,
      },
    },
    {
      document,
      shared: { type: 'array', maxItems: MOST_SHARED, items: object({ id, base: version, document }) },
      saveId: id,
    },
  ),
  publishPage: object({ version }, { shared: versionsByName }),
  journal: object({
    entries: {
      type: 'array',
      maxItems: MOST_ENTRIES,
      items: object(
        {
          number: { type: 'integer', minimum: -(2 ** 31), maximum: 2 ** 31 - 1 },
          base: version,
          at: { type: 'number', minimum: 0, exclusiveMaximum: LATEST },
          edits: { type: 'array', items: { $ref: 'edit_shape' } },
        },
        { shared: versionsByName },
      ),
    },
  }),
  changePicture: change({ name: words, alt: text, isDecoration: flag }),
  addPart: object({ ...partFacts, document }, { type: { enum: ['pattern', 'shared', 'template'] } }),
  saveTemplate: object({ base: version, document }),
  replacePart: object({ instead: { oneOf: [{ const: 'copies' }, object({ part: id })] } }),
  joinAlike: object({
    ...partFacts,
    sections: {
      type: 'array',
      minItems: 2,
      maxItems: MOST_JOINED,
      items: object({ pageId: id, version, nodeId: id }),
    },
  }),
  changePart: change(partFacts),
  changeNavigation: object({ items: { type: 'array' } }, { was: { type: 'array' } }),
  changeSite: change({
    name: words,
    language: words,
    icon: idOrNull,
    sharePicture: idOrNull,
    ownValues: flag,
    navigationLimit: { type: 'integer', minimum: 0, maximum: MOST_NAVIGATION },
    look: LOOK_SCHEMA,
  }),
  addSite: object({
    name: words,
    language: words,
    host: words,
    like: id,
    people: { type: 'array', maxItems: MOST_PEOPLE, items: id },
  }),
  changeHost: object({ host: words }),
  importPackage: object({
    choices: {
      type: 'object',
      maxProperties: MOST_CHOICES,
      additionalProperties: { enum: ['add', 'mine', 'theirs', 'both'] },
    },
    surfaces: { type: 'object', maxProperties: MOST_SURFACES, additionalProperties: text },
  }),
  nothing: object({}),
}

/** The name under which the validator of a request is generated. */
export function requestShape(name: keyof Requests): string {
  return `request_${name}`
}

/** All of them, with the names that they are generated under. */
export const REQUEST_SCHEMAS: readonly { readonly $id: string }[] = Object.entries(SCHEMAS).map(
  ([name, schema]) => ({ $id: requestShape(name as keyof Requests), ...schema }),
)
