/**
 * Templates that a site makes of its own pages. A page made from one has the same ids as the template, so that a newer version of
 * the template is taken over as somebody else's version of the page is: by merging, from the version that both began with.
 */
import { getKind, type Registry } from '../blocks/registry.ts'
import { fieldsOfWords, isWordless } from '../blocks/prompts.ts'
import { isPrompt } from '../blocks/validate-page.ts'
import { diffPages } from '../compare/diff-pages.ts'
import type { Conflict } from '../compare/conflict.ts'
import { mergePages } from '../compare/merge-pages.ts'
import type { WithSizes } from '../sizes/site-sizes.ts'
import { applyEdit, editSentence } from '../edits/edit.ts'
import { describeNode } from '../edits/describe.ts'
import type { Edit } from '../edits/edit-shapes.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { lineWords } from '../page/line.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { richTextWords } from '../page/rich-text.ts'
import { ancestry, subtreeIds } from '../page/walk.ts'
import { withNodes } from '../page/with-nodes.ts'
import { ASIDE, layoutOf } from '../site/layouts.ts'
import { settingsOf, withSettings } from '../site/page-settings.ts'
import { madeFromOf, templateRules, type MadeFrom, type TemplateRules } from '../site/template-rules.ts'

/** What is asked for in a field can be no longer than this. */
const LONGEST_PROMPT = 200

/** What is said of a page that becomes a template. */
export interface TemplateChoices {
  /** How each of these blocks is fixed: as it is, or all but its text. */
  readonly fixed: Readonly<Record<NodeId, 'all' | 'text'>>
  readonly asked: TemplateRules['asked']
  readonly takes: TemplateRules['takes']
  /** Whether texts that pages may change are emptied in the template. Each text then becomes the prompt of its field. */
  readonly isEmptied: boolean
}

/**
 * A page as a template: without what belongs to that one page alone (its title, description and address, what is set
 * aside), and with the rules for pages made from it. Its blocks keep their ids.
 */
export function templateOfPage(page: Page, choices: TemplateChoices, registry: Registry): Page {
  const { theme } = settingsOf(page)
  const kept = withoutAside(page)
  const there = (id: NodeId): boolean => findNode(kept, id) !== undefined
  const nodes: Record<NodeId, PageNode> = {}
  for (const id of subtreeIds(kept, kept.root)) {
    const { lock: _lock, ...node } = getNode(kept, id)
    const lock = Object.hasOwn(choices.fixed, id) ? choices.fixed[id] : undefined
    const isOpen = choices.isEmptied && id !== kept.root && !isHeldBack(kept, id, choices)
    nodes[id] = { ...(isOpen ? emptied(node, registry) : node), ...(lock ? { lock } : {}) }
  }
  const root = nodes[kept.root]!
  const rules: TemplateRules = {
    fixed: Object.keys(choices.fixed).filter(there),
    asked: choices.asked.filter(({ node }) => there(node)),
    takes: choices.takes.filter(({ node }) => there(node)),
  }
  nodes[kept.root] = { ...root, content: withRules(withoutOwn(root.content), rules) }
  return withSettings({ ...kept, nodes }, { ...NO_SETTINGS, theme })
}

/** The content of a root with these rules; a rule that says nothing takes no room in the document. */
function withRules(content: JsonObject, rules: TemplateRules): JsonObject {
  const { fixed: _fixed, asked: _asked, takes: _takes, ...rest } = content
  const said = Object.entries(rules).filter(([, list]) => (list as readonly unknown[]).length > 0)
  return { ...rest, ...Object.fromEntries(said) }
}

const NO_SETTINGS = {
  title: '',
  description: '',
  inNavigation: false,
  navigationLabel: '',
  isListed: true,
  sharePicture: null,
} as const

/** Without the words of the layout's fields, and without the template that the page itself was made from. */
function withoutOwn(content: JsonObject): JsonObject {
  const own = new Set<string>(['madeFrom', ...layoutOf(content).fields.map(({ key }) => key)])
  return Object.fromEntries(Object.entries(content).filter(([key]) => !own.has(key)))
}

function withoutAside(page: Page): Page {
  const root = getNode(page, page.root)
  const gone = new Set((root.slots[ASIDE] ?? []).flatMap((id) => subtreeIds(page, id)))
  const nodes = Object.fromEntries(Object.entries(page.nodes).filter(([id]) => !gone.has(id)))
  return { ...page, nodes: { ...nodes, [page.root]: { ...root, slots: { ...root.slots, [ASIDE]: [] } } } }
}

/** Whether a block, or one around it, stays wholly as it is. */
function isHeldBack(page: Page, id: NodeId, { fixed }: TemplateChoices): boolean {
  return ancestry(page, id).some((one) => Object.hasOwn(fixed, one) && fixed[one] === 'all')
}

/** A block that asks for what it said. */
function emptied(node: PageNode, registry: Registry): PageNode {
  const definition = getKind(registry, node.kind)
  const fields = definition.typedFields?.(node.content) ?? fieldsOfWords(definition)
  const asked = fields.flatMap((field): [string, string][] => {
    const words = saidIn(node.content[field])
    return words === undefined ? [] : [[field, words]]
  })
  if (asked.length === 0) return node
  const content = { ...node.content }
  for (const [field] of asked) content[field] = definition.content.properties[field]?.default ?? ''
  // What its kind can't be without stays said.
  if (registry.check(node.kind, 'content', content).length > 0) return node
  return { ...node, content, prompts: { ...node.prompts, ...Object.fromEntries(asked) } }
}

/** What a text says, as one line that can be asked for; undefined where it says nothing of the kind. */
function saidIn(value: Json | undefined): string | undefined {
  if (value === undefined || isWordless(value)) return undefined
  const words = typeof value === 'string' ? value : textOf(value)
  const line = [...(words ?? '').replace(/\s+/g, ' ').trim()].slice(0, LONGEST_PROMPT).join('').trim()
  return isPrompt(line) ? line : undefined
}

function textOf(value: Json): string | undefined {
  if (!Array.isArray(value)) return undefined
  const isText = (value as readonly object[]).some((one) => 'type' in one)
  return isText ? richTextWords(value).join(' ') : lineWords(value)
}

/** A page made from a template of the site. Its title, and where it stands, are not the template's to say; `date` is as 2026-11-27. */
export function pageOfTemplate(
  template: Page,
  madeFrom: MadeFrom,
  { title, date }: { readonly title: string; readonly date: string },
  registry: Registry,
): Page {
  const root = getNode(template, template.root)
  const fields = new Set(layoutOf(root.content).fields.map(({ key }) => key))
  const content = {
    ...root.content,
    ...(fields.has('title') ? { title } : {}),
    ...(fields.has('date') ? { date } : {}),
    madeFrom: madeFrom as unknown as JsonObject,
  }
  const changed: Record<NodeId, PageNode> = { [template.root]: { ...root, content } }
  const ids = subtreeIds(template, template.root).filter((id) => id !== template.root)
  const main = ids.find((id) => isMainHeading(getNode(template, id), registry))
  if (main !== undefined) {
    const heading = getNode(template, main)
    const [field] = fieldsOfWords(getKind(registry, heading.kind))
    const isOpen = heading.lock !== 'all' && field !== undefined
    if (isOpen) changed[main] = { ...heading, content: { ...heading.content, [field]: title } }
  }
  return { ...template, nodes: withNodes(template.nodes, changed) }
}

function isMainHeading({ kind, content }: PageNode, registry: Registry): boolean {
  return getKind(registry, kind).facts?.(content).heading?.level === 1
}

/** What changed in one part of a template. */
export interface TemplateChange {
  readonly key: string
  /** Which part of the page, in words. */
  readonly title: string
  readonly sentences: readonly string[]
}

/** One edit of those that lead from one version to the next, with the change that it is part of. */
interface GroupedEdit {
  readonly edit: Edit
  readonly key: string
  readonly sentence: string
}

/** Returns what changed between two versions of a template, section by section: each can be taken over by itself. */
export function templateChanges(
  base: Page,
  newest: Page,
  registry: Registry,
  sizes?: WithSizes,
): readonly TemplateChange[] {
  const groups = new Map<string, Set<string>>()
  for (const { key, sentence } of groupedEdits(base, newest, registry, sizes)) {
    const sentences = groups.get(key) ?? new Set()
    groups.set(key, sentences.add(sentence))
  }
  return [...groups].map(([key, sentences]) => ({
    key,
    title: changeTitle(findNode(newest, key) ? newest : base, key, registry),
    sentences: [...sentences],
  }))
}

/** Edits in their order. Those of one section have one key, and so have those of several that blocks moved between. */
function groupedEdits(
  base: Page,
  newest: Page,
  registry: Registry,
  sizes?: WithSizes,
): readonly GroupedEdit[] {
  const groupOf = new Map<string, string>()
  const rootOf = (key: string): string => {
    const up = groupOf.get(key) ?? key
    return up === key ? key : rootOf(up)
  }
  const told: { readonly top: string; readonly edit: Edit; readonly sentence: string }[] = []
  let page = base
  for (const edit of diffPages(base, newest, registry)) {
    const tops = topsOf(page, edit)
    for (const top of tops.slice(1)) groupOf.set(rootOf(top), rootOf(tops[0]!))
    told.push({ top: tops[0]!, edit, sentence: editSentence(page, edit, registry, sizes) })
    const applied = applyEdit(page, edit, registry)
    if (applied.ok) page = applied.page
  }
  return told.map(({ top, edit, sentence }) => ({ edit, sentence, key: rootOf(top) }))
}

function changeTitle(page: Page, key: NodeId, registry: Registry): string {
  if (key === page.root) return 'The page and its rules'
  const words = describeNode(page, key, registry)
  return words.charAt(0).toUpperCase() + words.slice(1)
}

/** The sections, or other children of the page, that an edit is about: those it leads from and to. */
function topsOf(page: Page, edit: Edit): readonly NodeId[] {
  const topOf = (id: NodeId): NodeId => {
    const up = ancestry(page, id)
    return up.at(-2) ?? page.root
  }
  switch (edit.edit) {
    case 'insert':
      return [edit.parentId === page.root ? edit.rootId : topOf(edit.parentId)]
    case 'move':
      return [topOf(edit.nodeId), edit.toParentId === page.root ? edit.nodeId : topOf(edit.toParentId)]
    default:
      return [topOf(edit.nodeId)]
  }
}

export interface TakenOver {
  /** The page with the changes, and with the version that it now stands on. */
  readonly page: Page
  /** Where page and template both changed something: the page's own stays. */
  readonly conflicts: readonly Conflict[]
}

/**
 * A page with changes of its template. `base` is the version of the template that the page took over last, `newest` the
 * one that it takes over now, and `chosen` the keys of the changes wanted; the others are not offered again. What page and template both
 * changed stays as the page has it.
 */
export function takeOver(
  { page, base, newest }: { readonly page: Page; readonly base: Page; readonly newest: Page },
  { chosen, version }: { readonly chosen: readonly string[]; readonly version: number },
  registry: Registry,
): TakenOver {
  const wanted = groupedEdits(base, newest, registry).filter(({ key }) => chosen.includes(key))
  const theirs = wanted.reduce((at, { edit }) => applied(at, edit, registry), base)
  const merged = mergePages({ base, ours: page, theirs }, registry, () => 'ours')
  const root = getNode(merged.page, merged.page.root)
  const madeFrom = { ...madeFromOf(page)!, version } as unknown as JsonObject
  const nodes = withNodes(merged.page.nodes, {
    [merged.page.root]: { ...root, content: { ...root.content, madeFrom } },
  })
  return { page: { ...merged.page, nodes }, conflicts: merged.conflicts }
}

/** A page with one of several edits; where others before it were left out, its place may be nearer to the front. */
function applied(page: Page, edit: Edit, registry: Registry): Page {
  const result = applyEdit(page, fitted(page, edit), registry)
  return result.ok ? result.page : page
}

function fitted(page: Page, edit: Edit): Edit {
  if (edit.edit === 'insert')
    return { ...edit, index: Math.min(edit.index, childCount(page, edit.parentId, edit.slot)) }
  if (edit.edit !== 'move') return edit
  const isThere = findNode(page, edit.toParentId)?.slots[edit.toSlot]?.includes(edit.nodeId) ?? false
  const most = childCount(page, edit.toParentId, edit.toSlot) - (isThere ? 1 : 0)
  return { ...edit, toIndex: Math.min(edit.toIndex, most) }
}

function childCount(page: Page, id: NodeId, slot: string): number {
  return findNode(page, id)?.slots[slot]?.length ?? 0
}

/** Edits that let go of a page's template: what was fixed can be changed, and nothing more is taken over. */
export function freeOfTemplateEdits(page: Page): readonly Edit[] {
  const { fixed } = templateRules(page)
  const unlock = fixed
    .filter((id) => findNode(page, id)?.lock !== undefined)
    .map((nodeId): Edit => ({ edit: 'set', nodeId, at: ['lock'] }))
  const { content } = getNode(page, page.root)
  const forget = ['fixed', 'asked', 'takes', 'madeFrom'].filter((key) => Object.hasOwn(content, key))
  return [...forget.map((key): Edit => ({ edit: 'set', nodeId: page.root, at: ['content', key] })), ...unlock]
}
