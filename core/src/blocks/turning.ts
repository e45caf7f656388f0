import type { Json, JsonObject } from '../page/json.ts'
import type { Paragraph, RichText } from '../page/rich-text.ts'

/** How a kind that says running text is made into a text block, and of one. */
export interface Turning<C = JsonObject> {
  /** The field with what it says. */
  readonly field: string
  /** Whether it is the kind that the others are made into and of: its field holds paragraphs. */
  readonly isText?: boolean
  /** Whether it says one line: Enter at the end of it starts a paragraph after it. */
  readonly isLine?: boolean
  /** What it says, as a text block says it. */
  toText(content: C): RichText
  /** The content that says one paragraph; undefined where nothing would be said. `level` is that of a heading there. */
  ofParagraph?(paragraph: Paragraph, level: number): JsonObject | undefined
  /** The content for a paragraph that is nothing but this mark of plain text; undefined for a mark of something else. */
  ofMark?(mark: string): JsonObject | undefined
  /** What its field holds with a text behind it; undefined where it can't say that text. */
  joined?(content: C, text: RichText): Json | undefined
}
