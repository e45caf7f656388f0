/**
 * Files of design tokens as the Design Tokens Format Module of the Design Tokens Community Group (2025.10) has them: groups
 * of tokens whose types are inherited, and that refer to each other. The hex strings and "16px" of its earlier drafts are read, too.
 */
import {
  converter,
  formatHex,
  inGamut,
  modeA98,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeLrgb,
  modeOklab,
  modeOklch,
  modeP3,
  modeProphoto,
  modeRec2020,
  modeRgb,
  modeXyz50,
  modeXyz65,
  parseHex,
  toGamut,
  useMode as withMode,
  type Color,
} from 'culori/fn'
import type { Json, JsonObject } from '../page/json.ts'

/** A file that is no file of design tokens, with a sentence for people. */
export class UnreadableTokens extends Error {}

/** A token with its value as it stands after all references. Measures are in px, colours `#rrggbb`. */
export type DesignToken =
  | { readonly path: string; readonly type: 'color'; readonly value: string }
  | { readonly path: string; readonly type: 'dimension' | 'number' | 'fontWeight'; readonly value: number }
  | { readonly path: string; readonly type: 'fontFamily'; readonly value: readonly string[] }
  | { readonly path: string; readonly type: 'typography'; readonly value: Typography }

export interface Typography {
  /** px */
  readonly size?: number
  /** A multiple of the size. */
  readonly leading?: number
  /** px */
  readonly tracking?: number
  readonly weight?: number
  readonly family?: readonly string[]
}

/** Something in the file that no look has a place for, and why. */
export interface LeftToken {
  readonly path: string
  readonly why: string
}

export interface ReadTokens {
  readonly tokens: readonly DesignToken[]
  readonly left: readonly LeftToken[]
}

const LONGEST_FILE = 2_000_000
const MOST_TOKENS = 5_000
const DEEPEST = 40
/** As `LOOK_SCHEMA` has it. */
const LONGEST_PX = 4_000
const REM = 16

for (const mode of [
  modeRgb,
  modeLrgb,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeP3,
  modeA98,
  modeProphoto,
  modeRec2020,
  modeXyz50,
  modeXyz65,
])
  withMode(mode as typeof modeRgb)
const toRgb = converter('rgb')
const isOnScreens = inGamut('rgb')
const intoScreen = toGamut('rgb', 'oklch')

/** The colour spaces of the format (Color Module 2025.10, "Supported color spaces"), as the library has their channels. */
const SPACES: Readonly<
  Record<string, { readonly mode: Color['mode']; readonly channels: string; readonly percents?: string }>
> = {
  srgb: { mode: 'rgb', channels: 'rgb' },
  'srgb-linear': { mode: 'lrgb', channels: 'rgb' },
  hsl: { mode: 'hsl', channels: 'hsl', percents: 'sl' },
  hwb: { mode: 'hwb', channels: 'hwb', percents: 'wb' },
  lab: { mode: 'lab', channels: 'lab' },
  lch: { mode: 'lch', channels: 'lch' },
  oklab: { mode: 'oklab', channels: 'lab' },
  oklch: { mode: 'oklch', channels: 'lch' },
  'display-p3': { mode: 'p3', channels: 'rgb' },
  'a98-rgb': { mode: 'a98', channels: 'rgb' },
  'prophoto-rgb': { mode: 'prophoto', channels: 'rgb' },
  rec2020: { mode: 'rec2020', channels: 'rgb' },
  'xyz-d65': { mode: 'xyz65', channels: 'xyz' },
  'xyz-d50': { mode: 'xyz50', channels: 'xyz' },
}

/** The names that font weights may have instead of numbers (Format Module 2025.10, 8.4). */
const WEIGHTS: Readonly<Record<string, number>> = {
  thin: 100,
  hairline: 100,
  'extra-light': 200,
  'ultra-light': 200,
  light: 300,
  normal: 400,
  regular: 400,
  book: 400,
  medium: 500,
  'semi-bold': 600,
  'demi-bold': 600,
  bold: 700,
  'extra-bold': 800,
  'ultra-bold': 800,
  black: 900,
  heavy: 900,
  'extra-black': 950,
  'ultra-black': 950,
}

/** Reads a file of tokens. What no look has a place for is listed. Throws `UnreadableTokens` where it is none, or refers to itself. */
export function readDesignTokens(text: string): ReadTokens {
  if (text.length > LONGEST_FILE)
    throw new UnreadableTokens('The file has more than two million characters. Nothing was changed.')
  let file: Json
  try {
    file = JSON.parse(text) as Json
  } catch {
    throw new UnreadableTokens('The file is not JSON, so it holds no design tokens. Nothing was changed.')
  }
  if (!isGroup(file))
    throw new UnreadableTokens('The file holds no group of design tokens. Nothing was changed.')
  const reader = new Reader(file)
  reader.readGroup(file, [], undefined)
  if (reader.tokens.length === 0 && reader.left.length === 0)
    throw new UnreadableTokens('There is no design token in the file. Nothing was changed.')
  return reader
}

class Reader implements ReadTokens {
  readonly tokens: DesignToken[] = []
  readonly left: LeftToken[] = []
  readonly #file: JsonObject

  constructor(file: JsonObject) {
    this.#file = file
  }

  readGroup(group: JsonObject, path: readonly string[], inherited: string | undefined): void {
    if (path.length > DEEPEST)
      throw new UnreadableTokens(`Its groups are more than ${DEEPEST} deep. Nothing was changed.`)
    const type = typeof group.$type === 'string' ? group.$type : inherited
    if (Object.hasOwn(group, '$value')) return this.#readToken(group, path.join('.'), type)
    for (const [name, inside] of Object.entries(group)) {
      // `$root` is the token of the group itself (Format Module 2025.10, 6.2).
      if (name.startsWith('$') && name !== '$root') continue
      if (isGroup(inside)) this.readGroup(inside, [...path, name], type)
    }
  }

  #readToken(token: JsonObject, path: string, inherited: string | undefined): void {
    if (this.tokens.length + this.left.length >= MOST_TOKENS)
      throw new UnreadableTokens(`It holds more than ${MOST_TOKENS} tokens. Nothing was changed.`)
    const found = this.#resolve(token.$value!, inherited, [path])
    const read = tokenOf(path, found, (value) => this.#resolve(value, undefined, [path]).value)
    if ('why' in read) this.left.push(read)
    else this.tokens.push(read)
  }

  /** A value with the token that it refers to in its place, and the type that has. */
  #resolve(value: Json, type: string | undefined, seen: readonly string[]): Found {
    const target = referenceIn(value)
    if (target === undefined) return { value, type }
    if (seen.includes(target))
      throw new UnreadableTokens(
        `Tokens refer to each other in a ring: ${[...seen, target].join(' → ')}. Nothing was changed.`,
      )
    if (seen.length > DEEPEST)
      throw new UnreadableTokens(`A chain of references is longer than ${DEEPEST}. Nothing was changed.`)
    const found = this.#tokenAt(target)
    if (found === undefined) return { value: null, type, missing: target }
    const inner = this.#resolve(found.value, found.type, [...seen, target])
    return { ...inner, type: inner.type ?? type }
  }

  #tokenAt(path: string): { readonly value: Json; readonly type: string | undefined } | undefined {
    let at: Json = this.#file
    let type: string | undefined
    for (const name of path.split('.')) {
      if (!isGroup(at) || !Object.hasOwn(at, name)) return undefined
      if (typeof at.$type === 'string') type = at.$type
      at = at[name]!
    }
    if (!isGroup(at)) return undefined
    const own = typeof at.$type === 'string' ? at.$type : type
    if (Object.hasOwn(at, '$value')) return { value: at.$value!, type: own }
    const root = at.$root
    return isGroup(root ?? null) && Object.hasOwn(root as JsonObject, '$value')
      ? { value: (root as JsonObject).$value!, type: own }
      : undefined
  }
}

interface Found {
  readonly value: Json
  readonly type: string | undefined
  /** A token that is referred to and not there. */
  readonly missing?: string
}

/** The path of the token that a value refers to: `{group.token}`, or a JSON pointer (RFC 6901) to a token's value. */
function referenceIn(value: Json): string | undefined {
  if (typeof value === 'string') return /^\{([^{}]+)\}$/.exec(value)?.[1]
  if (!isGroup(value) || typeof value.$ref !== 'string' || !value.$ref.startsWith('#/')) return undefined
  const names = value.$ref
    .slice(2)
    .split('/')
    .map((name) => name.replaceAll('~1', '/').replaceAll('~0', '~'))
  return (names.at(-1) === '$value' ? names.slice(0, -1) : names).join('.')
}

function tokenOf(
  path: string,
  { value, type, missing }: Found,
  resolve: (value: Json) => Json,
): DesignToken | LeftToken {
  if (missing !== undefined) return { path, why: `It refers to “${missing}”, which is not in the file.` }
  const wrong: LeftToken = { path, why: 'Its value is not what its type asks for.' }
  switch (type ?? typeOfValue(value)) {
    case 'color': {
      const colour = colourOf(value)
      return colour === undefined ? wrong : { path, type: 'color', value: colour }
    }
    case 'dimension': {
      const px = pxOf(value)
      if (px === undefined) return wrong
      return px < 0 || px > LONGEST_PX
        ? { path, why: 'A look has no measures below 0 or over 4,000 px.' }
        : { path, type: 'dimension', value: px }
    }
    case 'number':
      return typeof value === 'number' ? { path, type: 'number', value } : wrong
    case 'fontWeight': {
      const weight = weightOf(value)
      return weight === undefined ? wrong : { path, type: 'fontWeight', value: weight }
    }
    case 'fontFamily': {
      const names = familyOf(value)
      return names === undefined ? wrong : { path, type: 'fontFamily', value: names }
    }
    case 'typography':
      return isGroup(value) ? { path, type: 'typography', value: typographyOf(value, resolve) } : wrong
    case undefined:
      return { path, why: 'It has no type.' }
    default:
      return { path, why: `A look has nothing of the type “${type}”.` }
  }
}

/** Earlier drafts let colours and measures go without a type. */
function typeOfValue(value: Json): string | undefined {
  if (typeof value !== 'string') return undefined
  if (parseHex(value)) return 'color'
  return pxOf(value) === undefined ? undefined : 'dimension'
}

/** A colour as screens show it: where it is outside of sRGB, the nearest that is not, of the same lightness and hue (CSS Color 4, 14). */
function colourOf(value: Json): string | undefined {
  if (typeof value === 'string') {
    const colour = parseHex(value)
    return colour && formatHex(colour)
  }
  if (!isGroup(value) || typeof value.colorSpace !== 'string' || !Array.isArray(value.components))
    return undefined
  const space = Object.hasOwn(SPACES, value.colorSpace) ? SPACES[value.colorSpace] : undefined
  const components = value.components as readonly Json[]
  if (!space || components.length !== 3) return undefined
  if (!components.every((one) => typeof one === 'number' || one === 'none')) return undefined
  const channels = [...space.channels].map((channel, i) => {
    const number = components[i] === 'none' ? 0 : (components[i] as number)
    return [channel, space.percents?.includes(channel) === true ? number / 100 : number] as const
  })
  const colour = { mode: space.mode, ...Object.fromEntries(channels) } as Color
  const rgb = toRgb(colour)
  return formatHex(isOnScreens(rgb) ? rgb : toRgb(intoScreen(colour)))
}

function pxOf(value: Json): number | undefined {
  if (isGroup(value)) {
    const { value: number, unit } = value
    if (typeof number !== 'number' || (unit !== 'px' && unit !== 'rem')) return undefined
    return unit === 'rem' ? number * REM : number
  }
  const [, number, unit] = (typeof value === 'string' && /^(-?\d+(?:\.\d+)?)(px|rem)$/.exec(value)) || []
  if (number === undefined) return undefined
  return unit === 'rem' ? Number(number) * REM : Number(number)
}

function weightOf(value: Json): number | undefined {
  if (typeof value === 'number') return value >= 1 && value <= 1000 ? value : undefined
  return typeof value === 'string' && Object.hasOwn(WEIGHTS, value) ? WEIGHTS[value] : undefined
}

function familyOf(value: Json): readonly string[] | undefined {
  const names = Array.isArray(value) ? (value as readonly Json[]) : [value]
  return names.length > 0 && names.every((name) => typeof name === 'string') ? names : undefined
}

/** A size of type that a look can have. */
function sizeOf(value: Json | undefined): number | undefined {
  const px = pxOf(value ?? null)
  return px !== undefined && px > 0 && px <= LONGEST_PX ? px : undefined
}

function typographyOf(value: JsonObject, resolve: (value: Json) => Json): Typography {
  const at = (key: string): Json | undefined => (value[key] === undefined ? undefined : resolve(value[key]))
  const read = {
    size: sizeOf(at('fontSize')),
    tracking: pxOf(at('letterSpacing') ?? null),
    weight: weightOf(at('fontWeight') ?? null),
    family: at('fontFamily') === undefined ? undefined : familyOf(at('fontFamily')!),
    leading: typeof at('lineHeight') === 'number' ? (at('lineHeight') as number) : undefined,
  }
  return Object.fromEntries(Object.entries(read).filter(([, one]) => one !== undefined))
}

function isGroup(value: Json): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** A colour `#rrggbb` as the format has it. */
export function colourValue(hex: string): JsonObject {
  const components = [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255)
  return { colorSpace: 'srgb', components, alpha: 1, hex }
}

/** A measure in px as the format has it. */
export function dimensionValue(px: number): JsonObject {
  return { value: px, unit: 'px' }
}
