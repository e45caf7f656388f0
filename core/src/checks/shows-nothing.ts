import { getKind } from '../blocks/registry.ts'
import { getNode } from '../page/page.ts'
import { shownIds } from '../resolve/shown.ts'
import type { Check } from './define-check.ts'

/** An instance that is there itself, since there is nothing to be shown in its place. */
export const showsNothing: Check = {
  rule: 'shows-nothing',
  severity: 'error',
  source: 'common practice, no source',
  find: ({ written, registry }) =>
    shownIds(written, written.root, registry).flatMap((id) =>
      getKind(registry, getNode(written, id).kind).linksTo
        ? [{ nodeId: id, message: 'This shared section is empty, or not there any more: it shows nothing' }]
        : [],
    ),
}
