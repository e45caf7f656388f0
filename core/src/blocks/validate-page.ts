import { cutShort } from '../page/cut-short.ts'
import { findTreeFault } from '../page/assert-page.ts'
import { ID_PATTERN } from '../page/id.ts'
import { PAGE_FORMAT, type Nodes, type Page, type PageNode } from '../page/page.ts'
import { MOST_VALUES } from './component-fields.ts'
import { fieldsOfWords } from './prompts.ts'
import { isSizeKey } from '../sizes/size-keys.ts'
import { getKind, NODE_PARTS, type Problem, type Registry } from './registry.ts'
import { slotRefusal } from './slots.ts'

/** Most nodes a page may have: far above any page seen, low enough that a hostile document is refused quickly. */
const MAX_NODES = 20_000

/** Nobody reads more, and listing them all would take a hostile document's sender nothing and everybody else long. */
const MOST_PROBLEMS = 100

const NAME_LIMIT = 200
const NODE_KEYS = new Set(['kind', 'content', 'look', 'sizes', 'slots', 'name', 'lock', 'prompts', 'values'])
const ID = new RegExp(ID_PATTERN)
/** One line with something in it. */
const PROMPT = /^(?=.*\S)[^\u0000-\u001F\u007F\uD800-\uDFFF]+$/

/**
 * All problems of a page document, each with a JSON pointer into it; empty when it is valid. Takes anything, such as
 * what a stranger sent, and never throws. `rootKind` is the kind that must hold all others.
 */
export function validatePage(value: unknown, registry: Registry, rootKind = 'page'): Problem[] {
  if (!isObject(value))
    return [{ pointer: '', message: 'a page is an object with "format", "root" and "nodes"' }]
  const unknown = Object.keys(value).filter((key) => !['format', 'root', 'nodes'].includes(key))
  if (unknown.length > 0)
    return unknown
      .slice(0, MOST_PROBLEMS)
      .map((key) => ({ pointer: `/${escape(key)}`, message: 'a page has no such field' }))
  if (value.format !== PAGE_FORMAT) {
    return [{ pointer: '/format', message: `must be ${PAGE_FORMAT}, the format this program reads` }]
  }
  if (typeof value.root !== 'string') return [{ pointer: '/root', message: 'must be the id of a node' }]
  if (!isObject(value.nodes)) return [{ pointer: '/nodes', message: 'must be an object of nodes by id' }]
  if (Object.keys(value.nodes).length > MAX_NODES) {
    return [{ pointer: '/nodes', message: `a page has at most ${MAX_NODES} nodes` }]
  }
  const problems = validateNodes(value.nodes, registry)
  if (problems.length > 0) return problems
  // From here on every node is known to have the shape of one.
  const page = value as unknown as Page
  const fault = findTreeFault(page.nodes, page.root)
  if (fault) return [{ pointer: '/nodes', message: fault }]
  if (page.nodes[page.root]?.kind !== rootKind) {
    return [{ pointer: '/root', message: `must be the id of a "${rootKind}" node` }]
  }
  return validateSlots(page.nodes, registry)
}

/**
 * Problems of nodes one by one: their shape, ids, kinds and the values of their parts; the first 100 of them. Says
 * nothing of the tree.
 */
export function validateNodes(nodes: Readonly<Record<string, unknown>>, registry: Registry): Problem[] {
  return firstProblems(Object.entries(nodes), ([id, node]) => {
    const pointer = `/nodes/${escape(id)}`
    if (!ID.test(id))
      return [{ pointer, message: 'a node id is a letter followed by up to 23 letters and digits' }]
    return validateNode(node, registry).map((problem) => ({ ...problem, pointer: pointer + problem.pointer }))
  })
}

/** The first problems of a list of things; those that come after are not even looked at. */
function firstProblems<T>(things: readonly T[], problemsOf: (thing: T) => readonly Problem[]): Problem[] {
  const problems: Problem[] = []
  for (const thing of things) {
    problems.push(...problemsOf(thing))
    if (problems.length >= MOST_PROBLEMS) return problems.slice(0, MOST_PROBLEMS)
  }
  return problems
}

/** Problems of slots: what the kinds of these nodes do not take where it stands. */
export function validateSlots(nodes: Nodes, registry: Registry): Problem[] {
  return firstProblems(Object.entries(nodes), ([id, node]) =>
    Object.entries(node.slots).flatMap(([slot, children]) =>
      children.flatMap((child, present) => {
        const message = slotRefusal(registry, node, slot, { kind: nodes[child]!.kind, present })
        return message ? [{ pointer: `/nodes/${escape(id)}/slots/${escape(slot)}/${present}`, message }] : []
      }),
    ),
  )
}

function validateNode(node: unknown, registry: Registry): Problem[] {
  if (!isObject(node)) return [{ pointer: '', message: 'a node is an object' }]
  const kind = node.kind
  if (typeof kind !== 'string' || !registry.kinds.has(kind)) {
    return [
      {
        pointer: '/kind',
        message: `unknown block kind ${quote(kind)}; known: ${[...registry.kinds.keys()].join(', ')}`,
      },
    ]
  }
  const unknown = Object.keys(node).filter((key) => !NODE_KEYS.has(key))
  return [
    ...unknown
      .slice(0, MOST_PROBLEMS)
      .map((key) => ({ pointer: `/${escape(key)}`, message: 'a node has no such field' })),
    ...NODE_PARTS.filter((part) => part !== 'sizes').flatMap((part) =>
      prefix(`/${part}`, registry.check(kind, part, node[part])),
    ),
    ...validateSizes(node.sizes, kind, registry),
    ...validateSlotLists(node as unknown as PageNode, registry),
    ...validateName(node.name),
    ...validateLock(node.lock),
    ...validatePrompts(node.prompts, kind, registry),
    ...validateValues(node as unknown as PageNode, registry),
  ]
}

function validateSizes(sizes: unknown, kind: string, registry: Registry): Problem[] {
  if (!isObject(sizes) || !isObject(sizes.base)) {
    return [{ pointer: '/sizes', message: 'must be an object with at least "base"' }]
  }
  return Object.entries(sizes).flatMap(([size, values]) => {
    const pointer = `/sizes/${escape(size)}`
    if (!isSizeKey(size)) return [{ pointer, message: 'there is no such size' }]
    if (size !== 'base' && isObject(values) && Object.keys(values).length === 0) {
      return [{ pointer, message: 'a size that differs in nothing is left out' }]
    }
    return prefix(pointer, registry.check(kind, 'sizes', values))
  })
}

function validateSlotLists(node: PageNode, registry: Registry): Problem[] {
  if (!isObject(node.slots)) return [{ pointer: '/slots', message: 'must be an object of lists of ids' }]
  const expected = Object.keys(getKind(registry, node.kind).slots).sort()
  if (expected.join() !== Object.keys(node.slots).sort().join()) {
    return [
      {
        pointer: '/slots',
        message: `"${node.kind}" has ${expected.length === 0 ? 'no slots' : `the slots ${expected.join(', ')}`}`,
      },
    ]
  }
  return Object.entries(node.slots).flatMap(([slot, children]: [string, unknown]) =>
    Array.isArray(children) && children.every((child) => typeof child === 'string')
      ? []
      : [{ pointer: `/slots/${escape(slot)}`, message: 'must be a list of ids' }],
  )
}

/** Problems of a node's name. */
export function validateName(name: unknown): Problem[] {
  if (name === undefined) return []
  return typeof name === 'string' && name.trim() !== '' && name.length <= NAME_LIMIT
    ? []
    : [{ pointer: '/name', message: `a name has 1 to ${NAME_LIMIT} characters` }]
}

/** Problems of how a node is locked. */
export function validateLock(lock: unknown): Problem[] {
  return lock === undefined || lock === 'all' || lock === 'text'
    ? []
    : [{ pointer: '/lock', message: 'must be "all" or "text"' }]
}

/** Problems of what is asked for in a node of this kind. */
function validatePrompts(prompts: unknown, kind: string, registry: Registry): Problem[] {
  if (prompts === undefined) return []
  if (!isObject(prompts)) return [{ pointer: '/prompts', message: 'must be an object of words by field' }]
  const fields = fieldsOfWords(getKind(registry, kind))
  return firstProblems(Object.entries(prompts), ([field, prompt]) => {
    const pointer = `/prompts/${escape(field)}`
    if (!fields.includes(field)) return [{ pointer, message: `"${kind}" has no words of this name` }]
    return isPrompt(prompt) ? [] : [{ pointer, message: `must be 1 to ${NAME_LIMIT} characters in one line` }]
  })
}

/** Longer than any text of a block. */
const LONGEST_VALUE = 200_000

/** Problems of what an instance says in the fields of its part, as far as can be told without that part. */
export function validateValues(
  { kind, values }: Pick<PageNode, 'kind' | 'values'>,
  registry: Registry,
): Problem[] {
  if (values === undefined) return []
  const pointer = '/values'
  if (!getKind(registry, kind).linksTo) return [{ pointer, message: `"${kind}" has no fields` }]
  if (!isObject(values)) return [{ pointer, message: 'must be an object of values by field' }]
  const fields = Object.keys(values)
  if (fields.length === 0 || fields.length > MOST_VALUES)
    return [{ pointer, message: `must have 1 to ${MOST_VALUES} fields` }]
  if (!fields.every((field) => ID.test(field))) return [{ pointer, message: 'fields go by ids' }]
  return JSON.stringify(values).length > LONGEST_VALUE ? [{ pointer, message: 'is too long' }] : []
}

/** Whether this can be asked for in the place of words. */
export function isPrompt(value: unknown): boolean {
  return typeof value === 'string' && value.length <= NAME_LIMIT && PROMPT.test(value)
}

function prefix(pointer: string, problems: readonly Problem[]): Problem[] {
  return problems.map((problem) => ({ ...problem, pointer: pointer + problem.pointer }))
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** A reference token of a JSON pointer (RFC 6901, section 3). */
function escape(key: string): string {
  return key.replaceAll('~', '~0').replaceAll('/', '~1')
}

function quote(value: unknown): string {
  return typeof value === 'string' ? `"${cutShort(value, 50)}"` : typeof value
}
