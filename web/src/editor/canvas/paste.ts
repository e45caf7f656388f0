/** Plain text that is pasted: what was written as Markdown keeps its meaning, and so do rows of a spreadsheet. */
let convert: ((text: string) => string) | undefined

/** Fetches what reads Markdown, which opening a page does not wait for. */
export async function loadMarkdown(): Promise<void> {
  const { default: MarkdownIt } = await import('markdown-it')
  // Raw HTML is let through, since what comes out is read as HTML that was pasted is: nothing that runs gets further.
  const markdown = new MarkdownIt({ html: true, linkify: false, typographer: false })
  convert = (text) => withTasks(markdown.render(text))
}

/** GitHub Flavored Markdown 0.29, 5.3: "Task list items". */
function withTasks(html: string): string {
  return html.replace(/<li>(\s*<p>)?\[([ xX])\] /g, (_all, start: string | undefined, mark: string) => {
    return `<li>${start ?? ''}${mark === ' ' ? '☐' : '☑'} `
  })
}

/**
 * Markdown (CommonMark 0.31.2, with the tables, strikethrough and tasks of GitHub Flavored Markdown) as HTML. Undefined
 * until `loadMarkdown` is through.
 */
export function markdownToHtml(text: string): string | undefined {
  return convert?.(text)
}

/** Rows of a spreadsheet, as programs copy them as text: cells with tabs between them. Undefined for other text. */
export function rowsOfText(text: string): readonly (readonly string[])[] | undefined {
  const lines = text.replace(/(\r?\n)+$/, '').split(/\r?\n/)
  const rows = lines.map((line) => line.split('\t').map((cell) => cell.trim()))
  const width = rows[0]!.length
  return width > 1 && rows.every((row) => row.length === width) ? rows : undefined
}

/** The rows as an HTML table. */
export function tableHtml(rows: readonly (readonly string[])[]): string {
  const table = document.createElement('table')
  for (const row of rows) {
    const line = table.insertRow()
    for (const cell of row) line.insertCell().textContent = cell
  }
  return table.outerHTML
}
