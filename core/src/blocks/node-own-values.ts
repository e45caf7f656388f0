import { isOwnColour, isOwnMeasure } from '../look/own-values.ts'
import type { JsonObject } from '../page/json.ts'
import type { PageNode } from '../page/page.ts'
import { sizesSet } from '../sizes/size-keys.ts'
import { partSchema } from './define-block.ts'
import { getKind, type Registry } from './registry.ts'

/** A custom measure or colour of a node. */
interface OwnValue {
  /** JSON pointer within the node. */
  readonly pointer: string
  /** What it is set for. */
  readonly title: string
  /** In words: "17 px" or "#102030". */
  readonly value: string
}

/** Every value of a node that the look has no name for. The node must be valid. */
export function ownValuesOf(node: PageNode, registry: Registry): OwnValue[] {
  const kind = getKind(registry, node.kind)
  const parts: (readonly [string, JsonObject | undefined, ReturnType<typeof partSchema>])[] = [
    ['/look', node.look, partSchema(kind, 'look')],
    ...sizesSet(node).map((size) => [`/sizes/${size}`, node.sizes[size], kind.arrangement] as const),
  ]
  return parts.flatMap(([part, values = {}, { properties }]) =>
    Object.entries(values).flatMap(([key, value]): OwnValue[] => {
      const field = properties[key]
      if (typeof value !== 'string' || !field) return []
      const isOwn =
        (field.control === 'step' && isOwnMeasure(value)) ||
        (field.control === 'surface' && isOwnColour(value))
      const inWords = value.replace(/px$/, ' px')
      return isOwn ? [{ pointer: `${part}/${key}`, title: field.title, value: inWords }] : []
    }),
  )
}
