/** What a document refers to: recorded while it is rendered, and never found by searching what is stored of it. */
import { filledIn, valuesByNode, variantsOf } from '../blocks/component-fields.ts'
import type { Registry } from '../blocks/registry.ts'
import type { Look } from '../look/look.ts'
import { findNode, getNode, PAGE_FORMAT, type Page, type PageNode } from '../page/page.ts'
import { subtreeIds } from '../page/walk.ts'
import { settingsOf } from '../site/page-settings.ts'
import { madeFromOf } from '../site/template-rules.ts'
import { recordReads } from './recorded-reads.ts'
import { createNodeRenderer } from './render-node.ts'
import type { Picture, SiteContext, SiteFile } from '../kit/site-context.ts'
import { linkedPart, type Parts } from '../resolve/expand.ts'
import { ANY_SPOT, spotOf } from '../resolve/spots.ts'

/** `inside` is the pages under one: of the empty id, under the page that the document is. `template` is what a page was made from. */
export type UsedThing = 'page' | 'inside' | 'picture' | 'file' | 'part' | 'template'

export interface DocumentUse {
  readonly thing: UsedThing
  readonly id: string
  /** How many of its blocks refer to it; the document's own settings count as one. */
  readonly count: number
}

const READS: Readonly<Record<string, UsedThing>> = {
  path: 'page',
  inside: 'inside',
  picture: 'picture',
  file: 'file',
  part: 'part',
  template: 'template',
}

/**
 * Returns what a document refers to, whether or not it is there, and whether or not the page's layout shows it. Of `parts`
 * come the blocks that show what its instances fill in, and of the document those that show what its variants do.
 */
export function documentUses(
  document: Page,
  registry: Registry,
  look: Look,
  parts: Parts = {},
): readonly DocumentUse[] {
  const counts = new Map<string, number>()
  const count = (key: string): unknown => counts.set(key, (counts.get(key) ?? 0) + 1)
  const recording = recordReads(everything(look))
  const renderer = createNodeRenderer(registry, recording.context)
  for (const id of subtreeIds(document, document.root)) {
    const node = getNode(document, id)
    const spot = spotOf({ page: document, registry, look }, id)
    renderer.render({ id, node, slots: node.slots, spot })
    for (const read of recording.take()) count(read)
  }
  for (const node of filledInBlocks(document, parts, registry)) {
    // By itself: where it stands says nothing of what it refers to.
    renderer.render({ id: '', node, slots: node.slots, spot: ANY_SPOT })
    for (const read of recording.take()) count(read)
  }
  const { sharePicture } = settingsOf(document)
  if (sharePicture !== null) count(`picture:${sharePicture}`)
  const madeFrom = madeFromOf(document)
  if (madeFrom) count(`template:${madeFrom.template}`)
  return [...counts].flatMap(([key, times]) => {
    const [what = '', id = ''] = key.split(':', 2)
    const thing = READS[what]
    return thing === undefined ? [] : [{ thing, id, count: times }]
  })
}

/** The blocks of parts with what the instances on a document fill in. */
function filledInBlocks(document: Page, parts: Parts, registry: Registry): readonly PageNode[] {
  const filled = (part: Page, instance: Pick<PageNode, 'values' | 'content'>): PageNode[] =>
    [...(valuesByNode(getNode(part, part.root), instance) ?? [])].flatMap(([block, values]) => {
      const source = findNode(part, block)
      return source ? [filledIn(source, values, registry)] : []
    })
  // A variant that no instance is of yet may be chosen at any time: what it shows must be there.
  const ofVariants = variantsOf(getNode(document, document.root)).flatMap(({ values }) =>
    filled(document, { values, content: {} }),
  )
  const ofInstances = Object.values(document.nodes).flatMap((instance) => {
    const id = linkedPart(instance, registry)
    const part = id !== undefined && Object.hasOwn(parts, id) ? parts[id] : undefined
    return part ? filled(part, instance) : []
  })
  return [...ofVariants, ...ofInstances]
}

const NO_PART: Page = { format: PAGE_FORMAT, root: '', nodes: {} }

/** A site that has everything that is asked for: what stands inside a picture's link is only rendered where there is a picture. */
function everything(look: Look): SiteContext {
  return {
    site: { name: '', language: 'en', home: '/' },
    look,
    paths: anything<string>(() => '/'),
    pictures: anything<Picture>((id) => ({
      id,
      name: id,
      width: 1,
      height: 1,
      alt: '',
      sources: [],
      fallback: '/',
    })),
    files: anything<SiteFile>((id) => ({ id, name: id, type: 'pdf', bytes: 0, path: '/' })),
    // An instance is rendered as itself, and says what it shows.
    parts: anything<Page>(() => NO_PART),
    navigation: [],
    page: { id: '', title: '' },
    tree: { find: () => undefined, inside: () => [] },
    fontBase: '/',
    purpose: 'publish',
  }
}

/** A record that has every key. */
function anything<T>(make: (id: string) => T): Readonly<Record<string, T>> {
  return new Proxy<Record<string, T>>(
    {},
    {
      get: (_none, key) => make(String(key)),
      has: () => true,
      getOwnPropertyDescriptor: (_none, key) => ({
        value: make(String(key)),
        configurable: true,
        enumerable: true,
      }),
    },
  )
}
