/**
 * Layouts: how a page is put together. A layout names the slots of the page that it shows and what each takes, its fixed
 * parts and its fields. Content in a slot that the layout does not show stays with the page, aside, and is not published.
 */
import type { Registry } from '../blocks/registry.ts'
import type { JsonObject } from '../page/json.ts'
import { getNode, type Page } from '../page/page.ts'

export type LayoutName = 'plain' | 'side' | 'landing' | 'article'

export interface LayoutField {
  readonly key: 'title' | 'author' | 'date' | 'summary'
  readonly title: string
  readonly required: boolean
}

export interface Layout {
  readonly title: string
  readonly about: string
  /** The slots of the page that are shown, in their order on the page, with what each is called. */
  readonly slots: Readonly<Record<string, string>>
  /** Parts that are always there and can't be moved. */
  readonly fixed: readonly string[]
  readonly fields: readonly LayoutField[]
  /** `bare` has the site's name and no navigation, so that nothing leads away. */
  readonly header: 'full' | 'bare'
  /** The only kinds that may stand on the page; absent where all may. */
  readonly only?: readonly string[]
}

export const LAYOUTS: Readonly<Record<LayoutName, Layout>> = {
  plain: {
    title: 'Plain',
    about: 'Sections one below the other',
    slots: { sections: 'Sections' },
    fixed: [],
    fields: [],
    header: 'full',
  },
  side: {
    title: 'Side column',
    about: 'A main column and a narrower one beside it',
    slots: { sections: 'Above both columns', main: 'Main column', side: 'Side column' },
    fixed: [],
    fields: [],
    header: 'full',
  },
  landing: {
    title: 'Landing',
    about: 'One message: a header without navigation, and few kinds of blocks',
    slots: { sections: 'Sections' },
    fixed: [],
    fields: [],
    header: 'bare',
    only: [
      'hero',
      'section',
      'stack',
      'row',
      'columns',
      'column',
      'heading',
      'text',
      'list',
      'picture',
      'button',
      'button-group',
      'feature',
      'quote',
      'voices',
      'voice',
    ],
  },
  article: {
    title: 'Article',
    about: 'Heading, author, date, summary and body',
    slots: { main: 'Body', sections: 'Below the article' },
    fixed: ['Article head'],
    fields: [
      { key: 'title', title: 'Article heading', required: true },
      { key: 'author', title: 'Author', required: false },
      { key: 'date', title: 'Date', required: false },
      { key: 'summary', title: 'Summary', required: false },
    ],
    header: 'full',
  },
}

/** The layout of a page by its root's content. Pages that name none are plain. */
export function layoutOf(content: JsonObject): Layout {
  const { layout } = content
  return typeof layout === 'string' && Object.hasOwn(LAYOUTS, layout)
    ? LAYOUTS[layout as LayoutName]
    : LAYOUTS.plain
}

/** The slot of a page for what its layout has no place for. */
export const ASIDE = 'aside'

/**
 * Why a kind can't be added to this page, or undefined when it can. For people adding things; it is no law of the
 * document, so that no template can make a page that can't be saved: what stands there against it is a finding.
 */
export function layoutRefusal(page: Page, kind: string, registry: Registry): string | undefined {
  const { only, title } = layoutOf(getNode(page, page.root).content)
  if (!only || only.includes(kind)) return undefined
  const what = registry.kinds.get(kind)?.plural ?? kind
  return `A page of the template “${title}” takes no ${what}, so that it stays with its one message`
}
