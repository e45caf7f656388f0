import type { BlockDefinition } from '../define-block.ts'
import { breadcrumb } from './breadcrumb.ts'
import { button } from './button.ts'
import { buttonGroup } from './button-group.ts'
import { card } from './card.ts'
import { column } from './column.ts'
import { columns } from './columns.ts'
import { feature } from './feature.ts'
import { gallery } from './gallery.ts'
import { grid } from './grid.ts'
import { group } from './group.ts'
import { heading } from './heading.ts'
import { hero } from './hero.ts'
import { jumpList } from './jump-list.ts'
import { linkedBlocks } from './linked-blocks.ts'
import { linkedSections } from './linked-sections.ts'
import { list } from './list.ts'
import { menu } from './menu.ts'
import { page } from './page.ts'
import { panel } from './panel.ts'
import { panels } from './panels.ts'
import { pattern } from './pattern.ts'
import { picture } from './picture.ts'
import { quote } from './quote.ts'
import { row } from './row.ts'
import { section } from './section.ts'
import { sharedBlocks } from './shared-blocks.ts'
import { sharedSections } from './shared-sections.ts'
import { siteFooter } from './site-footer.ts'
import { siteHeader } from './site-header.ts'
import { slide } from './slide.ts'
import { slides } from './slides.ts'
import { slotFill } from './slot-fill.ts'
import { stack } from './stack.ts'
import { subPages } from './sub-pages.ts'
import { table } from './table.ts'
import { text } from './text.ts'
import { voice } from './voice.ts'
import { voices } from './voices.ts'

/** Every block kind there is, in alphabetical order. A test fails when a file of this folder is missing here. */
export const BLOCK_KINDS: readonly BlockDefinition[] = [
  breadcrumb,
  button,
  buttonGroup,
  card,
  column,
  columns,
  feature,
  gallery,
  grid,
  group,
  heading,
  hero,
  jumpList,
  linkedBlocks,
  linkedSections,
  list,
  menu,
  page,
  panel,
  panels,
  pattern,
  picture,
  quote,
  row,
  section,
  sharedBlocks,
  sharedSections,
  siteFooter,
  siteHeader,
  slide,
  slides,
  slotFill,
  stack,
  subPages,
  table,
  text,
  voice,
  voices,
]
