/** Work that grew with the square of what somebody can paste or send. Each is through within two seconds, as every hostile request is. */
import { describe, expect, test } from '@jest/globals'
import { patienceOf } from '../../scripts/lib/patience.mjs'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { withoutSilent } from '../src/resolve/left-out.ts'
import { getKind } from '../src/blocks/registry.ts'
import { runChecks } from '../src/checks/run-checks.ts'
import { mergePages } from '../src/compare/merge-pages.ts'
import type { Json } from '../src/page/json.ts'
import type { Page, PageNode } from '../src/page/page.ts'
import { paragraphs } from '../src/page/rich-text.ts'
import { testLook } from './arbitraries/site.ts'

const site = { title: 'A page', description: 'What', look: testLook, pages: {}, pictures: {}, files: {} }

/** A page of one section with these blocks. */
function pageOf(blocks: Readonly<Record<string, PageNode>>, inside: readonly string[]): Page {
  const make = (kind: string, slots: Record<string, readonly string[]>) =>
    newNode(getKind(registry, kind), { slots })
  const nodes = {
    ...blocks,
    root: make('page', { sections: ['sec'] }),
    sec: make('section', { blocks: inside }),
  }
  return { format: 4, root: 'root', nodes }
}
const within2s = <T>(act: () => T): T => {
  const start = performance.now()
  const result = act()
  const took = performance.now() - start
  expect(took).toBeLessThan(patienceOf(2_000, took))
  return result
}

describe('within two seconds', () => {
  test('10,000 items are compared with each other, and the one copy among them is found', () => {
    const ids = Array.from({ length: 10_000 }, (_unused, i) => `v${i}`)
    const voice = (said: string) => newNode(getKind(registry, 'voice'), { content: { said, who: 'Ines' } })
    const nodes = Object.fromEntries(ids.map((id, i) => [id, voice(`Said ${i === 9_999 ? 7 : i}`)]))
    const voices = newNode(getKind(registry, 'voices'), { slots: { voices: ids } })
    const page = pageOf({ ...nodes, all: voices }, ['all'])
    const found = within2s(() => runChecks(page, site, registry))
    expect(found.filter(({ rule }) => rule === 'unchanged-copy').map(({ nodeId }) => nodeId)).toEqual([
      'v9999',
    ])
  })

  test('two versions of 1,000 equal paragraphs are merged', () => {
    const text = (words: readonly string[]) =>
      newNode(getKind(registry, 'text'), { content: { words: paragraphs(...words) as unknown as Json } })
    const same = Array.from({ length: 999 }, () => 'the same')
    const page = (...words: string[]) => pageOf({ text: text(words) }, ['text'])
    const versions = {
      base: page(...same),
      ours: page('Ours', ...same),
      theirs: page(...same, 'Theirs'),
    }
    const { page: merged, conflicts } = within2s(() => mergePages(versions, registry))
    expect(conflicts).toEqual([])
    expect(merged.nodes.text!.content.words).toHaveLength(1_001)
  })

  test('of 15,000 blocks that say nothing, none is published', () => {
    const ids = Array.from({ length: 15_000 }, (_unused, i) => `h${i}`)
    const empty = newNode(getKind(registry, 'heading'))
    const page = pageOf(Object.fromEntries(ids.map((id) => [id, empty])), ids)
    const published = within2s(() => withoutSilent(page, page.root, registry))
    expect(Object.keys(published.nodes)).toEqual(['root'])
  })
})
