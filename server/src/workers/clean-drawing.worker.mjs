/**
 * Cleans drawings of everything that could run or reach elsewhere, away from the thread that answers people: DOMPurify
 * with its profile for SVG, and no links to other files at all. A drawing is only ever shown as a picture, where browsers
 * run nothing either (SVG Integration, "secure static mode"); both hold.
 */
import createDOMPurify from 'dompurify'
import { JSDOM } from 'jsdom'

const purify = createDOMPurify(new JSDOM('').window)
purify.addHook('afterSanitizeAttributes', (node) => {
  for (const { name, value } of [...node.attributes]) {
    const isLink = name === 'href' || name === 'xlink:href'
    if (isLink ? !value.trim().startsWith('#') : reachesElsewhere(value)) node.removeAttribute(name)
  }
})

/** Functions of CSS that fetch something (CSS Images 4; CSS Values 5, `src()`), unless it is a part of this drawing. */
function reachesElsewhere(value) {
  const plain = decoded(value)
  if (/(image-set|cross-fade|src)\s*\(/i.test(plain) || /@import/i.test(plain)) return true
  return [...plain.matchAll(/url\s*\(\s*(['"]?)([^)]*)/gi)].some(
    ([, , address]) => !address.trim().startsWith('#'),
  )
}

/** CSS Syntax 3, 4.3.7 "Consume an escaped code point", and comments taken out: what a browser reads. */
function decoded(value) {
  return value
    .replace(/\/\*[\s\S]*?\*\//g, '')
    .replace(/\\([0-9a-f]{1,6})\s?/gi, (_all, hex) => {
      const code = Number.parseInt(hex, 16)
      return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : '\ufffd'
    })
    .replace(/\\(.)/g, '$1')
}

/** @param {string} text */
export default function clean(text) {
  const svg = purify.sanitize(text, {
    USE_PROFILES: { svg: true, svgFilters: true },
    FORBID_TAGS: ['style', 'script', 'foreignObject', 'image', 'feImage', 'a', 'animate', 'set'],
    FORBID_ATTR: ['style'],
  })
  return /xmlns=/.test(svg) ? svg : svg.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"')
}
