/**
 * docs/interface-texts.md: every text that a person can be shown, read off the source by TypeScript's parser and put in
 * one place per area, so that it can be read through. A text is what stands between tags, or a string that reads like a
 * label or a sentence; what an expression gives in it is shown as {…}.
 */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import ts from 'typescript-parser'

export interface FileTexts {
  /** Path from the folder of the source, such as `pages/bin-screen.tsx`. */
  readonly file: string
  readonly texts: readonly string[]
}

/** Where people are spoken to. */
const AREAS = [
  { folder: 'web/src', title: 'Screens' },
  { folder: 'core/src', title: 'Blocks, checks and acts' },
  { folder: 'server/src', title: 'Answers of the server' },
  { folder: 'cli/src', title: 'Command line' },
] as const

export interface AreaTexts {
  readonly title: string
  readonly files: readonly FileTexts[]
}

/** The texts of each area, by file. */
export function interfaceTexts(root: string): AreaTexts[] {
  return AREAS.map(({ folder, title }) => {
    const names = readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    const files = names
      .filter((name) => /\.tsx?$/.test(name) && !name.endsWith('.d.ts') && !name.includes('migrations/'))
      .sort()
      .map((file) => ({ file, texts: textsOf(readFileSync(join(root, folder, file), 'utf8'), file) }))
    return { title, files: files.filter(({ texts }) => texts.length > 0) }
  })
}

/** The texts as Markdown. */
export function interfaceTextsPage(texts: readonly AreaTexts[]): string {
  const areas = texts.map(({ title, files }) => {
    const lists = files.map(
      ({ file, texts }) =>
        `### ${file}\n\n${texts.map((text) => `- ${text.replace(/([*_`<\\])/g, '\\$1')}`).join('\n')}\n`,
    )
    return `## ${title}\n\n${lists.join('\n')}`
  })
  return `# Every text of the interface\n\nMade from the source by \`npm run generate\`; to change a text, change it where it stands there.\n\n${areas.join('\n')}`
}

/** The texts in one file of source, each once, in the order in which they stand. */
export function textsOf(source: string, file: string): string[] {
  const found = new Set<string>()
  /** `isToldAbove`: the words of this element are part of a sentence that was found. */
  const visit = (node: ts.Node, isToldAbove = false): void => {
    // Rules of styles, names of modules and types are no texts.
    if (ts.isTaggedTemplateExpression(node) || ts.isImportDeclaration(node) || ts.isTypeNode(node)) return
    if (ts.isJsxElement(node) || ts.isJsxFragment(node)) {
      const isSentence = saysSomething(node)
      if (isSentence && !isToldAbove) add(found, sentenceOf(node), true)
      return ts.forEachChild(node, (child) => visit(child, isSentence || isToldAbove))
    }
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node))
      add(found, node.text, isShown(node))
    else if (ts.isTemplateExpression(node)) add(found, wordsOf(node), isShown(node))
    ts.forEachChild(node, (child) => visit(child))
  }
  const kind = file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS
  visit(ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true, kind))
  return [...found]
}

/** Whether an element has words of its own, and not only in the elements inside it. */
function saysSomething({ children }: ts.JsxElement | ts.JsxFragment): boolean {
  return children.some((child) => ts.isJsxText(child) && /\p{L}{2}/u.test(child.text))
}

/** What an element says, with that of the elements inside it. */
function sentenceOf({ children }: ts.JsxElement | ts.JsxFragment): string {
  const parts = children.map((child) => {
    if (ts.isJsxText(child)) return child.text.replace(/\s+/g, ' ')
    if (ts.isJsxElement(child) || ts.isJsxFragment(child)) return sentenceOf(child)
    if (!ts.isJsxExpression(child) || !child.expression) return ''
    return ts.isStringLiteral(child.expression) ? child.expression.text : '{…}'
  })
  return parts.join('')
}

function add(found: Set<string>, raw: string, isShown: boolean): void {
  const text = raw.replace(/\s+/g, ' ').trim()
  const hasWord = /\p{L}{2}/u.test(text.replaceAll('{…}', ''))
  if (hasWord && !KEY.test(text) && (isShown || readsLikeText(text))) found.add(text)
}

function wordsOf({ head, templateSpans }: ts.TemplateExpression): string {
  return head.text + templateSpans.map(({ literal }) => `{…}${literal.text}`).join('')
}

/** Names of attributes and fields whose values are shown as they are. */
const SHOWN =
  /^(title|label|about|word|words|placeholder|message|prompt|alt|aria-label|aria-description|name|none|hint|synonyms)$/

/** Whether a string is the value of something that is shown: a capital letter is enough for it to be a text. */
function isShown(node: ts.StringLiteral | ts.TemplateLiteral): boolean {
  const { parent } = node
  const text = 'text' in node ? node.text : '{…}'
  const owner = ts.isJsxExpression(parent) ? parent.parent : parent
  const name =
    ts.isJsxAttribute(owner) || ts.isPropertyAssignment(owner) ? owner.name.getText().replaceAll("'", '') : ''
  if (SHOWN.test(name)) return /^[\p{Lu}{]/u.test(text)
  // Names of options and of fields, such as "Wide": one word, given to something.
  const isGiven =
    ts.isCallExpression(parent) || (ts.isPropertyAssignment(parent) && parent.initializer === node)
  return isGiven && /^\p{Lu}\p{Ll}+$/u.test(text) && !KEY_NAMES.test(text)
}

/** Keys and headers that are one word. */
const KEY_NAMES = /^(Enter|Escape|Tab|Backspace|Delete|Home|End|Alt|Control|Shift|Location|Vary|Allow)$/
/** Keys made with a gap, as "title.{…}". */
const KEY = /^\w+[.-]\{…\}$/
const SQL =
  /^(ADD|ALTER|AND|CONSTRAINT|CREATE|DELETE|DROP|INSERT|LEFT|ORDER|PRIMARY|SELECT|SET|SHOW|UPDATE|WHERE)\b/

/** A sentence, or some words that begin with a capital letter. */
function readsLikeText(text: string): boolean {
  const words = text.split(' ')
  const isCode = /[{}=]|<[\w/!]|:\/\/|^[A-Z_]+$|--|&&|\.\w+\(|^\w+\.\w*$|;$/.test(
    text.replace(/\{[\w…-]+\}/g, ''),
  )
  return !isCode && !SQL.test(text) && words.length > 1 && /^[\p{Lu}“{]/u.test(text)
}
