/** Looks as files of design tokens, and files of design tokens as looks. */
import type { JsonObject } from '../page/json.ts'
import { contrastRatio } from './contrast-ratio.ts'
import {
  colourValue,
  dimensionValue,
  type DesignToken,
  type LeftToken,
  type ReadTokens,
} from './design-tokens.ts'
import type { FluidLength, FontFamily, Look, Surface, TypeStyle } from './look.ts'
import { colourDifference } from './nearest.ts'
import { SCALES } from './scales.ts'

/** A value of the look that a token gave. */
export interface TakenToken {
  /** The path of the token. */
  readonly path: string
  /** What of the look it is now, in words. */
  readonly what: string
  /** A colour `#rrggbb`, or a measure in px. */
  readonly value: string | number
}

export interface LookFromTokens {
  readonly look: Look
  readonly taken: readonly TakenToken[]
  readonly left: readonly LeftToken[]
}

type Role = Exclude<keyof Surface, 'title'>
const ROLES = [
  'background',
  'ink',
  'quiet',
  'titleInk',
  'link',
  'accent',
  'onAccent',
  'line',
] as const satisfies Role[]

const ROLE_WORDS: Readonly<Record<Role, string>> = {
  background: 'background',
  ink: 'text',
  quiet: 'quiet text',
  titleInk: 'headings',
  link: 'links',
  accent: 'buttons',
  onAccent: 'text on buttons',
  line: 'lines',
}

/** What tokens for a role tend to be called. Common practice, no source. */
const ROLE_HINTS: Readonly<Record<Role, RegExp>> = {
  background: /background|surface|canvas|paper|\bbg\b/i,
  ink: /\b(?:text|ink|foreground|body|copy)\b/i,
  quiet: /muted|quiet|subtle|secondary[-. ]?text|caption/i,
  titleInk: /heading|title|headline/i,
  link: /link|anchor/i,
  accent: /accent|primary|brand|action|button/i,
  onAccent: /\bon[-. ]|inverse|contrast/i,
  line: /border|line|divider|outline|rule/i,
}

/** How much nearer a colour counts whose name says the role. */
const HINT = 0.5
/** A colour of the look stays where none of the file is as near as this (CIEDE2000). */
const FARTHEST = 25
/** Line heights as multiples of the size, and letter spacings in em, that a look can have; see `LOOK_SCHEMA`. */
const LEADING = [0.5, 4] as const
const TRACKING = [-0.5, 1] as const
/** The contrast of text (WCAG 2.2, 1.4.3). */
const TEXT_CONTRAST = 4.5

/** A look as design tokens: read again, they are the same look. */
function tokensOfLook(look: Look): JsonObject {
  const fluid = ({ from, to }: FluidLength): JsonObject => ({
    $type: 'dimension',
    from: { $value: dimensionValue(from) },
    to: { $value: dimensionValue(to) },
  })
  const entries = <T>(record: Readonly<Record<string, T>>, tokens: (value: T) => JsonObject): JsonObject =>
    Object.fromEntries(Object.entries(record).map(([name, value]) => [name, tokens(value)]))
  return {
    color: {
      $type: 'color',
      ...entries(look.surfaces, ({ title, ...roles }) => ({
        $description: title,
        ...entries(roles, (hex) => ({ $value: colourValue(hex) })),
      })),
    },
    space: entries(look.space, fluid),
    radius: entries(look.radius, (px) => ({ $type: 'dimension', $value: dimensionValue(px) })),
    font: {
      $type: 'fontFamily',
      ...entries(look.fonts as Readonly<Record<string, FontFamily>>, ({ name, fallback }) => ({
        $value: [name, ...fallback.split(',').map((one) => one.trim())],
      })),
    },
    type: entries(look.type, ({ size, leading, tracking, weight, family }) => ({
      size: fluid(size),
      leading: { $type: 'number', $value: leading },
      tracking: { $type: 'number', $description: 'In em', $value: tracking },
      weight: { $type: 'fontWeight', $value: weight },
      family: { $type: 'fontFamily', $value: `{font.${family}}` },
    })),
    width: entries(look.widths, (px) => ({ $type: 'dimension', $value: dimensionValue(px) })),
    gutter: fluid(look.gutter),
  }
}

/**
 * A look made of tokens, on the base of one that is there. Tokens by the names that `tokensOfLook` gives are taken as they
 * are. Of all others each value of the look takes the one that comes nearest: colours by CIEDE2000 and by what tokens are
 * called, and so that text can still be read; measures of space, corners and type by the nearest step.
 */
export function lookFromTokens({ tokens, left }: ReadTokens, base: Look): LookFromTokens {
  const own = new Map(tokens.map((token) => [token.path, token]))
  const making = new Making(base, left)
  if (isOurs(own, base)) making.takeNamed(own)
  else making.takeNearest(tokens)
  return making.result(tokens)
}

/** Whether a file has the names of a look of ours: the page's own surface, whole. */
function isOurs(own: ReadonlyMap<string, DesignToken>, { pageSurface }: Look): boolean {
  return ROLES.every((role) => own.has(`color.${pageSurface}.${role}`))
}

class Making {
  #look: Look
  readonly #taken: TakenToken[] = []
  readonly #left: LeftToken[]
  /** Tokens that say again what the look says already. */
  readonly #known = new Set<string>()

  constructor(base: Look, left: readonly LeftToken[]) {
    this.#look = base
    this.#left = [...left]
  }

  result(tokens: readonly DesignToken[]): LookFromTokens {
    const told = new Set([...this.#known, ...[...this.#taken, ...this.#left].map(({ path }) => path)])
    const unused = tokens
      .filter(({ path }) => !told.has(path))
      .map(({ path }) => ({ path, why: 'Nothing in the look came near to it.' }))
    return { look: this.#look, taken: this.#taken, left: [...this.#left, ...unused] }
  }

  takeNamed(own: ReadonlyMap<string, DesignToken>): void {
    const base = this.#look
    const number = (path: string, before: number, what: string): number => {
      const token = own.get(path)
      if (!token || typeof token.value !== 'number') return before
      this.#taken.push({ path, what, value: token.value })
      return token.value
    }
    const fluid = (path: string, { from, to }: FluidLength, what: string): FluidLength => ({
      from: number(`${path}.from`, from, `${what} on narrow screens`),
      to: number(`${path}.to`, to, `${what} on wide screens`),
    })
    const surfaces = mapped(base.surfaces, (surface, name) => {
      const roles = ROLES.map((role) => {
        const token = own.get(`color.${name}.${role}`)
        if (token?.type !== 'color') return [role, surface[role]] as const
        this.#taken.push({
          path: token.path,
          what: `${surface.title}: ${ROLE_WORDS[role]}`,
          value: token.value,
        })
        return [role, token.value] as const
      })
      return { ...surface, ...Object.fromEntries(roles) }
    })
    this.#look = {
      ...base,
      surfaces,
      space: mapped(base.space, (step, name) => fluid(`space.${name}`, step, `Space ${name}`)),
      radius: mapped(base.radius, (px, name) => number(`radius.${name}`, px, `Corners ${name}`)),
      widths: mapped(base.widths, (px, name) => number(`width.${name}`, px, `Width ${name}`)),
      gutter: fluid('gutter', base.gutter, 'Gutter'),
      type: mapped(base.type, (style, name) => ({
        size: fluid(`type.${name}.size`, style.size, `Size of ${name}`),
        leading: within(number(`type.${name}.leading`, style.leading, `Line height of ${name}`), LEADING),
        tracking: within(
          number(`type.${name}.tracking`, style.tracking, `Letter spacing of ${name}`),
          TRACKING,
        ),
        weight: Math.round(number(`type.${name}.weight`, style.weight, `Weight of ${name}`)),
        family: style.family,
      })),
    }
    for (const name of ['words', 'titles'] as const) this.#takeFont(own.get(`font.${name}`), name)
    // Which of its two fonts a text size has, stays as it is in the look.
    for (const name of SCALES.type) this.#known.add(`type.${name}.family`)
  }

  takeNearest(tokens: readonly DesignToken[]): void {
    this.#takeColours(tokens.filter((token) => token.type === 'color'))
    this.#takeMeasures(tokens)
    this.#takeTypography(tokens.filter((token) => token.type === 'typography'))
    const fonts = tokens.filter((token) => token.type === 'fontFamily')
    this.#takeFont(
      fonts.find(({ path }) => /head|title|display/i.test(path)),
      'titles',
    )
    this.#takeFont(fonts.find(({ path }) => /body|text|copy|base|sans/i.test(path)) ?? fonts[0], 'words')
  }

  #takeColours(colours: readonly (DesignToken & { readonly type: 'color' })[]): void {
    if (colours.length === 0) return
    const base = this.#look
    this.#look = {
      ...base,
      surfaces: mapped(base.surfaces, (surface) => {
        const background = this.#colourFor(surface, 'background', colours, () => true)
        const next: Record<Role | 'title', string> = { ...surface, background }
        for (const role of ['ink', 'quiet', 'titleInk', 'link'] as const)
          next[role] = this.#colourFor(surface, role, colours, (hex) => canBeRead(hex, background))
        next.accent = this.#colourFor(
          surface,
          'accent',
          colours,
          (hex) => contrastRatio(hex, background) >= 3,
        )
        next.onAccent = this.#colourFor(surface, 'onAccent', colours, (hex) => canBeRead(hex, next.accent))
        next.line = this.#colourFor(surface, 'line', colours, () => true)
        return next
      }),
    }
  }

  #colourFor(
    surface: Surface,
    role: Role,
    colours: readonly (DesignToken & { readonly type: 'color' })[],
    fits: (hex: string) => boolean,
  ): string {
    const before = surface[role]
    const ranked = colours
      .filter(({ value }) => fits(value))
      .map((token) => {
        const far = colourDifference(token.value, before)
        return { token, far: ROLE_HINTS[role].test(token.path) ? far * HINT : far }
      })
      .sort((a, b) => a.far - b.far)
    const best = ranked[0]
    if (best && best.far <= FARTHEST) {
      this.#taken.push({
        path: best.token.path,
        what: `${surface.title}: ${ROLE_WORDS[role]}`,
        value: best.token.value,
      })
      return best.token.value
    }
    // What stood there can't always be read on what came: black or white can.
    if (fits(before)) return before
    return best?.token.value ?? (fits('#000000') ? '#000000' : '#ffffff')
  }

  #takeMeasures(tokens: readonly DesignToken[]): void {
    const named = (what: RegExp) =>
      tokens.flatMap((token) => (token.type === 'dimension' && what.test(token.path) ? [token] : []))
    const base = this.#look
    const spaces = named(/space|spacing|gap|padding/i)
    const corners = named(/radius|corner|round/i)
    const sizes = named(/font[-. ]?size|text[-. ]?size|type/i)
    this.#look = {
      ...base,
      space: mapped(base.space, (step, name) => this.#fluidFor(step, spaces, `Space ${name}`)),
      radius: mapped(base.radius, (px, name) =>
        // None and round mean what they say.
        name === 'none' || name === 'round' ? px : this.#measureFor(px, corners, `Corners ${name}`),
      ),
      type: mapped(base.type, (style, name) => ({
        ...style,
        size: this.#fluidFor(style.size, sizes, `Size of ${name}`),
      })),
    }
  }

  /** The nearest measure, and so much of it on narrow screens as the step has there. */
  #fluidFor({ from, to }: FluidLength, measures: readonly Measured[], what: string): FluidLength {
    if (to === 0) return { from, to }
    const next = this.#measureFor(to, measures, what)
    return { from: Math.round(next * (from / to) * 100) / 100, to: next }
  }

  #measureFor(px: number, measures: readonly Measured[], what: string): number {
    // A step that is twice as large, or half as large, is another one.
    const near = measures.filter(({ value }) => value > 0 && value <= px * 2 && value >= px / 2)
    const best = near.toSorted((a, b) => Math.abs(a.value - px) - Math.abs(b.value - px))[0]
    if (!best) return px
    this.#taken.push({ path: best.path, what, value: best.value })
    return best.value
  }

  #takeTypography(styles: readonly (DesignToken & { readonly type: 'typography' })[]): void {
    const base = this.#look
    const sized = styles.filter(({ value }) => value.size !== undefined)
    this.#look = {
      ...base,
      type: mapped(base.type, (style, name): TypeStyle => {
        const { to, from } = style.size
        const near = sized.filter(({ value }) => value.size! <= to * 1.5 && value.size! >= to / 1.5)
        const best = near.toSorted((a, b) => Math.abs(a.value.size! - to) - Math.abs(b.value.size! - to))[0]
        if (!best) return style
        const { size, leading, tracking, weight } = best.value
        this.#taken.push({ path: best.path, what: `Text ${name}`, value: size! })
        return {
          ...style,
          size: { from: Math.round(size! * (from / to) * 100) / 100, to: size! },
          ...(leading === undefined ? {} : { leading: within(leading, LEADING) }),
          ...(tracking === undefined ? {} : { tracking: within(tracking / size!, TRACKING) }),
          ...(weight === undefined ? {} : { weight: Math.round(weight) }),
        }
      }),
    }
  }

  /** Fonts ship with the application: a look can have one that is there already, and no other. */
  #takeFont(token: DesignToken | undefined, role: 'words' | 'titles'): void {
    if (token?.type !== 'fontFamily') return
    const { fonts } = this.#look
    const there = [fonts.words, fonts.titles].find(({ name }) => token.value.includes(name))
    if (!there) {
      const why = `The font “${token.value[0]}” is not on this server; “${fonts[role].name}” stays.`
      this.#left.push({ path: token.path, why })
      return
    }
    this.#taken.push({
      path: token.path,
      what: role === 'words' ? 'Font of texts' : 'Font of headings',
      value: there.name,
    })
    this.#look = { ...this.#look, fonts: { ...fonts, [role]: there } }
  }
}

type Measured = Extract<DesignToken, { readonly value: number }>

function within(value: number, [least, most]: readonly [number, number]): number {
  return Math.min(most, Math.max(least, value))
}

function canBeRead(hex: string, background: string): boolean {
  return contrastRatio(hex, background) >= TEXT_CONTRAST
}

/** A record with each value changed. */
function mapped<K extends string, T, U>(
  record: Readonly<Record<K, T>>,
  change: (value: T, key: K) => U,
): Record<K, U> {
  return Object.fromEntries(
    Object.entries(record).map(([key, value]) => [key, change(value as T, key as K)]),
  ) as Record<K, U>
}

/** The tokens of a look as the text of a file. */
export function tokenFile(look: Look): string {
  return `${JSON.stringify(tokensOfLook(look), undefined, 2)}\n`
}
