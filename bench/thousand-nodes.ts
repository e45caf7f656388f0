import { newNode, getKind, defaultRegistry, PAGE_FORMAT, type Page, type PageNode } from '@gullyline/core'

/** Blocks of a section: a heading, two texts and a row of three stacks, each with a heading and two texts. */
const NODES_IN_A_SECTION = 17

/** A page of about `count` nodes as an editor makes one: sections with words, rows of cards, sizes set here and there. */
export function pageOf(count: number): Page {
  const nodes: Record<string, PageNode> = {}
  const kind = (name: string) => getKind(defaultRegistry, name)
  const add = (id: string, name: string, more: Parameters<typeof newNode>[1]): string => {
    nodes[id] = newNode(kind(name), more)
    return id
  }
  const words = (n: number) => [
    {
      type: 'paragraph',
      runs: [
        { text: `The dome opens at dusk, and line ${n} says so ` },
        { text: 'plainly.', marks: ['bold'] },
      ],
    },
  ]
  const sections = Array.from({ length: Math.round(count / NODES_IN_A_SECTION) }, (_unused, s) => {
    const heading = (id: string) => add(id, 'heading', { content: { text: `Heading ${id}`, level: 2 } })
    const text = (id: string, n: number) => add(id, 'text', { content: { words: words(n) as never } })
    const cards = [0, 1, 2].map((c) =>
      add(`s${s}c${c}`, 'stack', {
        slots: { blocks: [heading(`s${s}c${c}h`), text(`s${s}c${c}t`, c), text(`s${s}c${c}u`, c + 7)] },
      }),
    )
    const row = add(`s${s}r`, 'row', {
      slots: { blocks: cards },
      sizes: { base: {}, narrow: { gap: 's' } },
    })
    const blocks = [heading(`s${s}h`), text(`s${s}t`, s), row, text(`s${s}u`, s + 3)]
    return add(`s${s}`, 'section', { slots: { blocks } })
  })
  add('root', 'page', { slots: { sections } })
  return { format: PAGE_FORMAT, root: 'root', nodes }
}

const GRID_COLUMNS = 12
const ACROSS = 3

/** A page of one grid section with so many headings on it, four beside each other. */
export function gridOf(count: number): Page {
  const nodes: Record<string, PageNode> = {}
  const blocks = Array.from({ length: count }, (_unused, i) => {
    const id = `g${i}`
    const at = i % (GRID_COLUMNS / ACROSS)
    nodes[id] = newNode(getKind(defaultRegistry, 'heading'), {
      content: { text: `Stone ${i}`, level: 3 },
      sizes: {
        base: {
          gridColumn: 1 + at * ACROSS,
          gridRow: 1 + Math.floor((i * ACROSS) / GRID_COLUMNS),
          gridColumns: ACROSS,
          gridRows: 1,
        },
      },
    })
    return id
  })
  nodes.grid = newNode(getKind(defaultRegistry, 'grid'), { slots: { blocks } })
  nodes.root = newNode(getKind(defaultRegistry, 'page'), { slots: { sections: ['grid'] } })
  return { format: PAGE_FORMAT, root: 'root', nodes }
}
