import { getKind, newNode, type Page, type Registry, type Starter } from '@gullyline/core'
import { newId } from '../session/new-id.ts'

/** With little above and below: the picture is of what stands in it. */
const CLOSE = { sizes: { base: { above: 's', below: 's' } } }

/** A page with nothing on it but what would be placed, for a picture of that. */
export function pageOfStarter(starter: Starter, registry: Registry): Page {
  const built = [starter.build(newId), ...starter.buildRest(newId)]
  const roots = built.map(({ rootId }) => rootId)
  const [root, around] = [newId(), newId()]
  const isSection = getKind(registry, starter.kind).group === 'section'
  return {
    format: 4,
    root,
    nodes: {
      ...built.reduce((nodes, one) => ({ ...nodes, ...one.nodes }), {}),
      [root]: newNode(getKind(registry, 'page'), { slots: { sections: isSection ? roots : [around] } }),
      ...(isSection
        ? {}
        : { [around]: newNode(getKind(registry, 'section'), { ...CLOSE, slots: { blocks: roots } }) }),
    },
  }
}
