/** From rules to a stylesheet that holds only what a page uses, always in the same order. */
import { getKind, type Registry } from '../blocks/registry.ts'
import type { SizeKey } from '../page/page.ts'
import { surfaceClass, surfaceOf } from '../look/own-values.ts'
import { widthBelow } from '../sizes/site-sizes.ts'
import { BASE_RULES, REDUCED_MOTION } from './base-rules.ts'
import type { CssRule } from '../kit/css-rules.ts'
import type { SiteContext } from '../kit/site-context.ts'
import { fontFaces, surfaceRule, tokenValues } from './look-css.ts'
import type { RenderedNode } from './render-node.ts'

/** Names that occur in a page, tags as they are and classes with a dot in front: what a selector must name to be of use there. */
export type UsedNames = ReadonlySet<string>

/** What a node asks of the stylesheet. */
type StyledNode = Pick<RenderedNode, 'kind' | 'surface' | 'rules'>

/**
 * A stylesheet in two parts, each of which may stand by itself. A browser drops all fonts that it has made where a sheet
 * that declares some is changed, or has other rules in force at another width (seen in Chromium 156).
 */
export interface Stylesheet {
  readonly fonts: string
  readonly rules: string
}

/**
 * The stylesheet for these rendered nodes. With `used`, rules for elements that do not occur are left out; the canvas
 * leaves it away, so that typing a first list item needs no new stylesheet.
 */
export function renderStylesheet(
  registry: Registry,
  context: SiteContext,
  nodes: Iterable<StyledNode>,
  used?: UsedNames,
): Stylesheet {
  const rules = collectRules(registry, context, nodes).filter((rule) => !used || isUsed(rule.selector, used))
  const sizes = [...new Set(rules.map(({ size }) => size))].sort()
  const body = sizes.map((size) => sizeCss(context, rules, size)).join('')
  return {
    fonts: fontFaces(context.look, context).join(''),
    rules: rootCss(context, body) + body + REDUCED_MOTION,
  }
}

/** All rules: the base's, then the kinds' and the surfaces', then those of single nodes, which win over them. */
function collectRules(registry: Registry, context: SiteContext, nodes: Iterable<StyledNode>): CssRule[] {
  const kinds = new Set<string>()
  const surfaces = new Set<string>()
  const arranged = new Map<string, CssRule>()
  const seen = new Set<readonly CssRule[]>()
  for (const node of nodes) {
    kinds.add(node.kind)
    if (node.surface) surfaces.add(node.surface)
    if (seen.has(node.rules)) continue
    seen.add(node.rules)
    for (const rule of node.rules) keepRule(arranged, rule)
  }
  const { look } = context
  return [
    ...BASE_RULES.map((rule): CssRule => ({ ...rule, size: 'base' })),
    ...pageSurface(context),
    ...[...kinds]
      .sort()
      .flatMap((kind) => getKind(registry, kind).rules.map((rule): CssRule => ({ size: 'base', ...rule }))),
    ...[...surfaces].sort().flatMap((name) => {
      const surface = surfaceOf(look, name)
      return surface ? [surfaceRule(`.${surfaceClass(name)}`, surface)] : []
    }),
    ...[...arranged.keys()].sort().map((key) => arranged.get(key)!),
  ]
}

function keepRule(arranged: Map<string, CssRule>, rule: CssRule): void {
  const key = `${rule.selector} ${rule.size}`
  const known = arranged.get(key)
  if (known && JSON.stringify(known) !== JSON.stringify(rule)) {
    throw new Error(
      `Two arrangements share the class of "${rule.selector}": the hash in render/hash.ts is too short`,
    )
  }
  arranged.set(key, rule)
}

function pageSurface({ look }: SiteContext): CssRule[] {
  const surface = look.surfaces[look.pageSurface]
  return surface ? [surfaceRule('body', surface)] : []
}

/** The rules of a size, for the screens on which it is in force. */
function sizeCss(context: SiteContext, rules: readonly CssRule[], size: SizeKey): string {
  const below = widthBelow(size, context.look)
  if (below === 0) return ''
  const css = rules
    .filter((rule) => rule.size === size)
    .map(ruleCss)
    .join('')
  return css === '' || below === undefined ? css : `@media (width<${below}px){${css}}`
}

function ruleCss(rule: CssRule): string {
  const declarations = Object.entries(rule.declarations).map(([property, value]) => `${property}:${value}`)
  return `${rule.selector}{${declarations.join(';')}}`
}

/** What stands on the canvas besides the page's own stylesheet, for every kind there is. */
export function canvasCss(registry: Registry): string {
  return [...registry.kinds.values()]
    .flatMap(({ canvasRules = [] }) => canvasRules.map((rule) => ruleCss({ size: 'base', ...rule })))
    .join('')
}

/** Values for the tokens that the body of the stylesheet refers to, and no others. */
function rootCss(context: SiteContext, body: string): string {
  const named = new Set([...body.matchAll(/var\(--([a-z-]+)\)/g)].map((match) => match[1]))
  const values = [...tokenValues(context.look)].filter(([name]) => named.has(name))
  return values.length === 0 ? '' : `:root{${values.map(([name, value]) => `--${name}:${value}`).join(';')}}`
}

/** True when one of the selectors of a list names nothing but tags and classes that occur. */
function isUsed(selectorList: string, used: UsedNames): boolean {
  return selectorList.split(',').some((selector) => {
    const names = selector.replace(/::?[a-z-]+(\([^)]*\))?|\[[^\]]*\]/g, '').match(/\.?[a-z][\w-]*/g) ?? []
    return names.every((name) => used.has(name))
  })
}
