/**
 * @jest-environment node
 *
 * Rendered elements in React, judged by hast-util-to-jsx-runtime, a library for the same of any tree.
 */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { toJsxRuntime } from 'hast-util-to-jsx-runtime'
import { renderToStaticMarkup } from 'react-dom/server'
import { Fragment, jsx, jsxs } from 'react/jsx-runtime'
import type { ReactNode } from 'react'
import {
  createNodeRenderer,
  Resolver,
  defaultRegistry,
  ICON_WORDS,
  iconElement,
  type IconName,
} from '@gullyline/core'
import { anyPage } from '../../core/test/arbitraries/page.ts'
import { testLook, testSite } from '../../core/test/arbitraries/site.ts'
import { elementToReact } from '../src/editor/canvas/element-to-react.ts'

const markup = (node: ReactNode) => renderToStaticMarkup(<main>{node}</main>)

describe('an element in React', () => {
  test('gives the markup that the library gives, for every block of any page', () => {
    const renderer = createNodeRenderer(defaultRegistry, testSite('canvas'))
    fc.assert(
      fc.property(anyPage, (page) => {
        const resolver = new Resolver({ registry: defaultRegistry, look: testLook, audience: 'editor' })
        resolver.update({ page })
        for (const shown of resolver.nodes()) {
          const { element } = renderer.render(shown)
          const judged = toJsxRuntime(element, { Fragment, jsx, jsxs, ignoreInvalidStyle: true }) as ReactNode
          expect(markup(elementToReact(element))).toBe(markup(judged))
        }
      }),
      { numRuns: 100 },
    )
  })

  test('gives the same for every icon', () => {
    for (const name of Object.keys(ICON_WORDS) as IconName[]) {
      const judged = toJsxRuntime(iconElement(name), { Fragment, jsx, jsxs }) as ReactNode
      expect(markup(elementToReact(iconElement(name)))).toBe(markup(judged))
    }
  })

  test('puts components in the place of the elements they stand for', () => {
    const Stand = ({ name }: { name: string }) => <b>{name}</b>
    const element = {
      type: 'element' as const,
      tagName: 'div',
      properties: { className: ['a', 'b'] },
      children: [
        { type: 'element' as const, tagName: 'gl-slot', properties: { name: 'here' }, children: [] },
      ],
    }
    expect(renderToStaticMarkup(elementToReact(element, { 'gl-slot': Stand }))).toBe(
      '<div class="a b"><b>here</b></div>',
    )
  })
})
