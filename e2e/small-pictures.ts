/** What small pictures show. They are out of reach of what is searched for on the screen, as it should be. */
import type { Locator, Page } from '@playwright/test'

interface ProtocolNode {
  readonly nodeName: string
  readonly nodeValue: string
  readonly attributes?: readonly string[]
  readonly children?: readonly ProtocolNode[]
  readonly shadowRoots?: readonly ProtocolNode[]
}

/** The words in each picture within, in the order of the document. */
export async function wordsOfPictures(within: Page | Locator): Promise<string[]> {
  const isPage = 'goto' in within
  const page = isPage ? within : within.page()
  const mark = 'data-looked-at'
  const root = isPage ? within.locator('body') : within
  await root.evaluate((element, name) => element.setAttribute(name, ''), mark)
  const protocol = await page.context().newCDPSession(page)
  const { root: whole } = await protocol.send('DOM.getDocument', { depth: -1, pierce: true })
  await protocol.detach()
  await root.evaluate((element, name) => element.removeAttribute(name), mark)
  return [...walk(whole)]
    .filter((node) => node.attributes?.includes(mark))
    .flatMap((node) => [...walk(node)].filter(({ attributes }) => attributes?.includes('data-picture')))
    .map(({ shadowRoots = [] }) => shadowRoots.flatMap((shadow) => [...walk(shadow)]))
    .map((nodes) => nodes.flatMap((node) => (node.nodeName === '#text' ? node.nodeValue : [])).join(' '))
}

function* walk(node: ProtocolNode): Generator<ProtocolNode> {
  yield node
  for (const child of node.children ?? []) yield* walk(child)
}
