/** Texts of every character there is, and addresses of the web. */
import fc from 'fast-check'

/** The code points that stand for halves of characters in UTF-16, and for nothing by themselves (Unicode, 3.8, D71 to D73). */
const SURROGATES = { first: 0xd8_00, count: 0x8_00 }
const LAST_POINT = 0x10_ff_ff

const character = fc
  .integer({ min: 0, max: LAST_POINT - SURROGATES.count })
  .map((nth) => String.fromCodePoint(nth < SURROGATES.first ? nth : nth + SURROGATES.count))

/**
 * Text of up to so many characters, any there are. As `fc.string({ unit: 'binary' })`, which lists all 1,112,064 of them
 * before it is drawn from, and takes 1.7 s for it in every process; so does `fc.webUrl`.
 */
export function anyText(most: number): fc.Arbitrary<string> {
  return fc.array(character, { maxLength: most }).map((all) => all.join(''))
}

/** Addresses of the web, with whatever characters as browsers write them in an address. */
export const webAddress = fc
  .record({
    scheme: fc.constantFrom('http', 'https'),
    authority: fc.webAuthority(),
    path: fc.array(anyText(8), { maxLength: 3 }),
  })
  .map(({ scheme, authority, path }) =>
    [`${scheme}://${authority}`, ...path.map(encodeURIComponent)].join('/'),
  )
