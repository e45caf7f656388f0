import type { Json } from '../page/json.ts'
import type { BlockDefinition, NodePart } from './define-block.ts'
import { partSchema } from './define-block.ts'

/** One thing wrong with a value: where (a JSON pointer, RFC 6901, into the value) and what. */
export interface Problem {
  readonly pointer: string
  readonly message: string
}

/** Checks a value against one schema; an empty list means valid. Never throws, whatever it is given. */
export type SchemaCheck = (value: unknown) => readonly Problem[]

/** Checks by name; see `checkName`. */
export type SchemaChecks = Readonly<Record<string, SchemaCheck>>

/** The block kinds of this program, closed and immutable. Handed to everything that needs to know kinds. */
export interface Registry {
  /** All kinds, by name. */
  readonly kinds: ReadonlyMap<string, BlockDefinition>
  /** Problems of one part of a node of a kind. */
  check(kind: string, part: NodePart, value: unknown): readonly Problem[]
}

/** The name under which the check for one part of a kind is generated. */
export function checkName(kind: string, part: NodePart): string {
  return `${kind.replaceAll('-', '_')}_${part}`
}

export const NODE_PARTS: readonly NodePart[] = ['content', 'look', 'sizes']

/** Builds the registry. Throws one Error that lists every contradiction among the definitions. */
export function createRegistry(definitions: readonly BlockDefinition[], checks: SchemaChecks): Registry {
  const kinds = new Map(definitions.map((definition) => [definition.kind, definition]))
  const faults = [
    ...findDuplicates(definitions),
    ...definitions.flatMap((definition) => findFaults(definition, checks)),
  ]
  if (faults.length > 0) throw new Error(`The block kinds contradict themselves:\n${faults.join('\n')}`)
  return {
    kinds,
    check: (kind, part, value) => {
      const check = kinds.has(kind) ? checks[checkName(kind, part)] : undefined
      return check ? check(value) : [{ pointer: '', message: `there is no block kind "${kind}"` }]
    },
  }
}

function findDuplicates(definitions: readonly BlockDefinition[]): string[] {
  const names = definitions.map((definition) => definition.kind)
  return names
    .filter((name, index) => names.indexOf(name) !== index)
    .map((name) => `"${name}" is defined twice`)
}

function findFaults(definition: BlockDefinition, checks: SchemaChecks): string[] {
  return NODE_PARTS.flatMap((part) => {
    const check = checks[checkName(definition.kind, part)]
    if (!check) return [`"${definition.kind}" has no check for its ${part}: run "npm run generate"`]
    const defaults: Record<string, Json> = {}
    for (const [key, field] of Object.entries(partSchema(definition, part).properties)) {
      if (field.default !== undefined) defaults[key] = field.default
    }
    return check(defaults).map(
      (problem) =>
        `the defaults of "${definition.kind}" break its own schema at ${part}${problem.pointer}: ${problem.message}`,
    )
  })
}

/** The definition of a kind. Throws RangeError for a kind that the registry does not have. */
export function getKind(registry: Registry, kind: string): BlockDefinition {
  const definition = registry.kinds.get(kind)
  if (!definition) {
    throw new RangeError(`Unknown block kind "${kind}"; known: ${[...registry.kinds.keys()].join(', ')}`)
  }
  return definition
}
