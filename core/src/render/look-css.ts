import { fluidCss, type FontFamily, type Look, type Surface } from '../look/look.ts'
import type { CssRule, Declarations } from './css-rules.ts'

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

/** The `@font-face` rules of a look. `swap` shows words at once and never hides them (CSS Fonts 4, "font-display"). */
export function fontFaces(look: Look, fontBase: string): string[] {
  return familiesOf(look).flatMap((family) =>
    family.files.map(
      (file) =>
        `@font-face{font-family:${quoteFamily(family.name)};font-style:${file.style};font-weight:${file.weight};` +
        `font-display:swap;src:url(${fontBase}${file.file}) format("woff2")}`,
    ),
  )
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
  return `${quoteFamily(family.name)},${family.fallback}`
}

function quoteFamily(name: string): string {
  return `"${name.replace(/["\\]/g, '')}"`
}
