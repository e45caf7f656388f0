import type { Link } from '../page/link.ts'
import type { Element, Properties } from './element.ts'
import type { Picture, SiteContext } from './site-context.ts'
import type { Spot } from './spot.ts'

/** What a kind may ask while it renders. Everything else is out of reach: no clock, no chance, no DOM, no network. */
export interface RenderContext {
  /** Where the children of a slot go. */
  slot(name: string): Element
  /** How many blocks stand in a slot. */
  count(name: string): number
  /** Properties for the element that shows the words of a content field, so that they can be typed in place. */
  wordsOf(field: string): Properties
  /** Whether a content field gets an element: it has words, or they are asked for on the canvas. */
  hasPlace(field: string): boolean
  /** The address of a link, or undefined when it leads nowhere or is not allowed. */
  href(link: Link | undefined): string | undefined
  /** Says that a part is shown here, so that it is known what the document refers to. */
  asksForPart(id: string): void
  /** A picture of the media library, or undefined when there is none with this id. */
  picture(id: string): Picture | undefined
  readonly site: SiteContext['site']
  readonly navigation: SiteContext['navigation']
  /** The page that is shown, and the pages of the site in the order of the tree. */
  readonly page: SiteContext['page']
  readonly tree: SiteContext['tree']
  /** Facts of the place where this node stands. It holds only the facts that the kind names in `usesSpot`. */
  readonly spot: Spot
}
