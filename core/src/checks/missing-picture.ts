import type { Check } from './define-check.ts'

/** A picture that the library does not have: it shows nothing. */
export const missingPicture: Check = {
  rule: 'missing-picture',
  severity: 'error',
  source: 'common practice, no source',
  find: ({ nodes, site }) =>
    nodes.flatMap(({ id, facts }) =>
      (facts.pictures ?? []).flatMap((picture) =>
        Object.hasOwn(site.pictures, picture.id)
          ? []
          : [
              {
                nodeId: id,
                message: 'This picture is not in the library, and shows nothing: choose another',
              },
            ],
      ),
    ),
}
