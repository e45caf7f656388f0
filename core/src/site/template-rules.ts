/**
 * What a site's own template asks of the pages made from it: which blocks are fixed, which slots take what, and which
 * fields must be filled in. The rules stand in the root of the template, and each page made from it has them in its own root: a page
 * says by itself what may be done with it, and takes over newer rules as it takes over newer blocks.
 */
import { hiddenList, ID } from '../blocks/component-fields.ts'
import type { Registry } from '../blocks/registry.ts'
import type { FieldSchema } from '../kit/fields.ts'
import { getNode, type NodeId, type Page } from '../page/page.ts'

/** A field of a block, or of the page itself, that must be filled in. */
export interface AskedField {
  readonly node: NodeId
  readonly key: string
}

/** The kinds that may be added to a slot of a block. */
export interface TakenKinds {
  readonly node: NodeId
  readonly slot: string
  readonly kinds: readonly string[]
}

export interface TemplateRules {
  /** Blocks whose lock only the template changes. */
  readonly fixed: readonly NodeId[]
  readonly asked: readonly AskedField[]
  readonly takes: readonly TakenKinds[]
}

/** Which template a page was made from, and the version that it took over last. */
export interface MadeFrom {
  readonly template: string
  readonly version: number
}

const MOST_RULES = 500
const KEY = '^[a-z][a-zA-Z]{0,31}$'
const KIND_NAME = '^[a-z][a-z-]{0,31}$'

const fixed: FieldSchema = {
  title: 'Fixed blocks',
  control: 'fields',
  hidden: true,
  type: 'array',
  maxItems: MOST_RULES,
  items: ID,
}
const madeFrom: FieldSchema = {
  title: 'Template',
  control: 'fields',
  hidden: true,
  type: 'object',
  properties: { template: ID, version: { type: 'integer', minimum: 1 } },
  required: ['template', 'version'],
  additionalProperties: false,
}

/** The fields of a page's root that hold the rules. */
export const TEMPLATE_FIELDS = {
  madeFrom,
  fixed,
  asked: hiddenList('Required fields', MOST_RULES, { node: ID, key: { type: 'string', pattern: KEY } }),
  takes: hiddenList('Kinds taken', MOST_RULES, {
    node: ID,
    slot: { type: 'string', pattern: KEY },
    kinds: { type: 'array', minItems: 1, maxItems: 40, items: { type: 'string', pattern: KIND_NAME } },
  }),
} as const satisfies Readonly<Record<string, FieldSchema>>

/** The rules of a template, or of a page made from one; without any for other pages. */
export function templateRules(page: Page): TemplateRules {
  const { fixed: blocks, asked, takes } = getNode(page, page.root).content
  return {
    fixed: (blocks ?? []) as unknown as readonly NodeId[],
    asked: (asked ?? []) as unknown as readonly AskedField[],
    takes: (takes ?? []) as unknown as readonly TakenKinds[],
  }
}

/** Where a page was made from; undefined for one that was made from no template of the site. */
export function madeFromOf(page: Page): MadeFrom | undefined {
  return getNode(page, page.root).content.madeFrom as unknown as MadeFrom | undefined
}

/** Why a kind can't be added to a slot, or undefined where it can. For people adding things; what stands there already may stay. */
export function takesRefusal(
  page: Page,
  place: { readonly parentId: NodeId; readonly slot: string },
  kind: string,
  registry: Registry,
): string | undefined {
  const { takes } = templateRules(page)
  const rule = takes.find(({ node, slot }) => node === place.parentId && slot === place.slot)
  if (!rule || rule.kinds.includes(kind)) return undefined
  const names = rule.kinds.flatMap((one) => registry.kinds.get(one)?.plural ?? [])
  const what = registry.kinds.get(kind)?.plural ?? kind
  return `The page’s template takes no ${what} here, only ${names.join(', ')}`
}
