import type { Surface } from '../look/look.ts'
import { contrastRatio } from '../look/contrast-ratio.ts'
import { surfaceOf } from '../look/own-values.ts'
import type { Check, Found } from './define-check.ts'

/** Text of normal size needs this ratio (WCAG 2.2, 1.4.3). */
const LEAST = 4.5

const PAIRS: readonly (readonly [what: string, ink: keyof Surface, ground: keyof Surface])[] = [
  ['words', 'ink', 'background'],
  ['quiet words', 'quiet', 'background'],
  ['headings', 'titleInk', 'background'],
  ['links', 'link', 'background'],
  ['labels', 'accent', 'background'],
  ['words on buttons', 'onAccent', 'accent'],
]

/** Every pair of colours of the surfaces that the page uses. */
export const contrast: Check = {
  rule: 'contrast',
  severity: 'error',
  source: 'WCAG 2.2, 1.4.3 Contrast (Minimum)',
  find({ nodes, site }) {
    const users = new Map<string, string | undefined>([[site.look.pageSurface, undefined]])
    for (const { id, node } of nodes) {
      const { surface } = node.look
      if (typeof surface === 'string' && !users.has(surface)) users.set(surface, id)
    }
    return [...users].flatMap(([name, nodeId]) => {
      const surface = surfaceOf(site.look, name)
      if (!surface) return [{ ...at(nodeId), message: `The look has no background called “${name}”` }]
      return PAIRS.flatMap(([what, ink, ground]): Found[] => {
        const ratio = contrastRatio(surface[ink], surface[ground])
        return ratio >= LEAST
          ? []
          : [
              {
                ...at(nodeId),
                message: `On “${surface.title}” the ${what} have a contrast of ${ratio.toFixed(2)}, and need ${LEAST}`,
              },
            ]
      })
    })
  },
}

function at(nodeId: string | undefined): { nodeId?: string } {
  return nodeId === undefined ? {} : { nodeId }
}
