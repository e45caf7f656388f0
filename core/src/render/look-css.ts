import { fluidCss, type FontFamily, type FontMetrics, type Look, type Surface } from '../look/look.ts'
import type { CssRule, Declarations } from '../kit/css-rules.ts'

/** The value of every custom property that rules may refer to, by name without the two dashes. */
export function tokenValues(look: Look): ReadonlyMap<string, string> {
  const values = new Map<string, string>()
  for (const [step, length] of Object.entries(look.space)) values.set(`space-${step}`, fluidCss(length))
  for (const [step, px] of Object.entries(look.radius)) values.set(`radius-${step}`, `${px}px`)
  for (const [step, style] of Object.entries(look.type)) {
    const family = familyCss(look.fonts[style.family])
    values.set(`type-${step}`, `${style.weight} ${fluidCss(style.size)}/${style.leading} ${family}`)
    values.set(`tracking-${step}`, style.tracking === 0 ? 'normal' : `${style.tracking}em`)
  }
  values.set('gutter', fluidCss(look.gutter))
  values.set('width-reading', `${look.widths.reading}px`)
  values.set('width-broad', `${look.widths.broad}px`)
  return values
}

/** The rule that puts a surface under an element, and its colours on everything that stands on it. */
export function surfaceRule(selector: string, surface: Surface): CssRule {
  const declarations: Declarations = {
    '--paper': surface.background,
    '--ink': surface.ink,
    '--quiet': surface.quiet,
    '--title': surface.titleInk,
    '--link': surface.link,
    '--accent': surface.accent,
    '--on-accent': surface.onAccent,
    '--line': surface.line,
    background: 'var(--paper)',
    color: 'var(--ink)',
  }
  return { selector, size: 'base', declarations }
}

/** Where the files of fonts are served, and what each is called there if not by its own name. */
export interface FontPlace {
  readonly fontBase: string
  readonly fontNames?: Readonly<Record<string, string>>
}

/** The `@font-face` rules of a look. `swap` shows words at once and never hides them (CSS Fonts 4, "font-display"). */
export function fontFaces(look: Look, place: FontPlace): string[] {
  return familiesOf(look).flatMap((family) => [
    ...family.files.map(
      (file) =>
        `@font-face{font-family:${quoteFamily(family.name)};font-style:${file.style};font-weight:${file.weight};` +
        `font-display:swap;src:url(${fontPath(file.file, place)}) format("woff2")}`,
    ),
    ...(family.metrics ? [fallbackFace(family.name, family.metrics)] : []),
  ])
}

/** The address of a font's file. */
export function fontPath(file: string, { fontBase, fontNames = {} }: FontPlace): string {
  return fontBase + (Object.hasOwn(fontNames, file) ? fontNames[file]! : file)
}

/**
 * Installed fonts that text is set in first. Liberation is made to the measures of Arial and Times New Roman. Figures from
 * the fonts' own tables, as the package @capsizecss/metrics 3 lists them.
 */
const INSTALLED = {
  serif: { fonts: ['Times New Roman', 'Liberation Serif', 'Tinos'], letterWidth: 832 / 2048 },
  sans: { fonts: ['Arial', 'Liberation Sans', 'Arimo'], letterWidth: 913 / 2048 },
} as const

/**
 * An installed font stretched so that text takes the same room as in the font that is still to come, and nothing moves when
 * it has (CSS Fonts 5, "size-adjust", "ascent-override", "descent-override" and "line-gap-override").
 */
function fallbackFace(name: string, metrics: FontMetrics): string {
  const { unitsPerEm, ascent, descent, lineGap, letterWidth, like } = metrics
  const { fonts, letterWidth: installed } = INSTALLED[like]
  const adjust = letterWidth / unitsPerEm / installed
  const share = (units: number): string => `${Math.round((10_000 * units) / (unitsPerEm * adjust)) / 100}%`
  return (
    `@font-face{font-family:${quoteFamily(fallbackName(name))};src:${fonts.map((font) => `local("${font}")`).join(',')};` +
    `size-adjust:${Math.round(10_000 * adjust) / 100}%;ascent-override:${share(ascent)};` +
    `descent-override:${share(-descent)};line-gap-override:${share(lineGap)}}`
  )
}

function fallbackName(name: string): string {
  return `${name} until loaded`
}

/** The names of the upright fonts of a look, which nearly every page shows. */
export function uprightFonts(look: Look): string[] {
  return familiesOf(look).flatMap(({ files }) =>
    files.filter(({ style }) => style === 'normal').map(({ file }) => file),
  )
}

function familiesOf({ fonts }: Look): FontFamily[] {
  return [...new Set([fonts.words, fonts.titles])]
}

function familyCss(family: FontFamily): string {
  const until = family.metrics ? `${quoteFamily(fallbackName(family.name))},` : ''
  return `${quoteFamily(family.name)},${until}${family.fallback}`
}

function quoteFamily(name: string): string {
  return `"${name.replace(/["\\]/g, '')}"`
}
