/** What typing on the page needs. It comes as one piece, after the page. */
export { InlineWords, typeUnseen } from './inline-words.tsx'
export { TextBar } from './text-bar.tsx'
