import {
  getNode,
  layoutOf,
  renderStylesheet,
  sharedRoot,
  TreeHtml,
  type Page,
  type Registry,
  type SiteContext,
  type Stylesheet,
} from '@gullyline/core'
import { PIECES, type Piece } from '../canvas/shown-page.ts'

/** A page as visitors get it, with the ids of its nodes. */
export interface MeasuredDocument {
  readonly body: string
  readonly sheet: Stylesheet
}

/** Writes one page again and again as it is edited, each time only what changed. */
export class MeasuredHtml {
  readonly #registry: Registry
  readonly #context: SiteContext
  readonly #trees: Readonly<Record<Piece, TreeHtml>>

  constructor(registry: Registry, context: SiteContext) {
    this.#registry = registry
    this.#context = context
    const tree = (): TreeHtml => new TreeHtml(registry, context, { audience: 'visitor' })
    this.#trees = { header: tree(), page: tree(), footer: tree() }
  }

  /** `page` is the session's, with what stands on every page joined to it. */
  write(page: Page): MeasuredDocument {
    const used = PIECES.flatMap((piece) => {
      const root = piece === 'page' ? page.root : sharedRoot(page, piece)
      if (root === undefined) return []
      const isBare = piece === 'header' && layoutOf(getNode(page, page.root).content).header === 'bare'
      this.#trees[piece].update({ page, root, isBare })
      return [this.#trees[piece]]
    })
    return {
      body: used.flatMap((tree) => tree.strings()).join(''),
      sheet: renderStylesheet(
        this.#registry,
        this.#context,
        used.flatMap((tree) => tree.written()),
      ),
    }
  }
}
