import type { Check } from './define-check.ts'

const FILE_NAME =
  /^[^\s]+\.(jpe?g|png|gif|webp|avif|svg|bmp|tiff?|heic)$|^(img|dsc|pict?|image|scan)[-_ ]?\d+$/i

/** A picture that means something needs words that stand for it. */
export const alternativeText: Check = {
  rule: 'alternative-text',
  severity: 'error',
  source: 'WCAG 2.2, 1.1.1 Non-text Content; failure F30 for file names',
  find: ({ nodes, site }) =>
    nodes.flatMap(({ id, facts }) =>
      (facts.pictures ?? []).flatMap((picture) => {
        const known = Object.hasOwn(site.pictures, picture.id) ? site.pictures[picture.id] : undefined
        // One that is not there is a problem of its own.
        if (!known) return []
        const alt = picture.alt || known.alt
        if (picture.decoration || (!picture.alt && known.isDecoration)) return []
        if (alt.trim() === '')
          return [
            { nodeId: id, message: 'This picture has no alternative text and is not marked as decoration' },
          ]
        if (FILE_NAME.test(alt.trim()))
          return [{ nodeId: id, message: `The alternative text “${alt}” is a file name` }]
        return []
      }),
    ),
}
