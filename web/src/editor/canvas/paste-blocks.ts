/** What other programs copy, put on the page as blocks; pictures are uploaded first. */
import { getKind, newNode, placeEdit, type Fragment, type Target } from '@gullyline/core'
import { paste } from '../commands/acts.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { placeAfterSelection } from './place.ts'
import { uploadPictures } from '../../media/uploads.ts'
import { loadMarkdown, markdownToHtml } from './paste.ts'

/** Pastes HTML or text as blocks after the selection. Says what was left out, and when there was nothing. */
export async function pasteBlocks(
  store: EditorStore,
  given: { readonly html: string } | { readonly text: string },
): Promise<void> {
  const tell = (words: string): void => store.dispatch({ type: 'tell', words, tone: 'refused' })
  try {
    const [{ blocksFromHtml }] = await Promise.all([import('./html-blocks.ts'), loadMarkdown()])
    const html = 'html' in given ? given.html : (markdownToHtml(given.text) ?? '')
    const { fragments, leftOut } = blocksFromHtml(html, store.registry, newId)
    if (fragments.length > 0) paste(store, fragments)
    if (leftOut > 0)
      tell(
        `${fragments.length > 0 ? 'Pasted without' : 'Not pasted:'} ${leftOut === 1 ? 'a picture' : `${leftOut} pictures`} from another site. Save it to your device, then drop it here`,
      )
    else if (fragments.length === 0) tell('Nothing pasted: what was copied has no text')
  } catch {
    tell('Not pasted: a part of the editor could not be loaded. Nothing was changed; try again')
  }
}

/** Uploads pictures, and puts them on the page: where they were dropped, or else after the selection. */
export function pastePictures(store: EditorStore, files: readonly File[], target?: Target): void {
  const count = files.length
  const words = count === 1 ? 'Uploading a picture…' : `Uploading ${count} pictures…`
  store.dispatch({ type: 'tell', words, tone: 'done' })
  void uploadPictures(files).then((pictures) => {
    if (pictures.length === 0) return
    const fragments = pictures.map(({ id }): Fragment => {
      const rootId = newId()
      return {
        rootId,
        nodes: { [rootId]: newNode(getKind(store.registry, 'picture'), { content: { media: { id } } }) },
      }
    })
    // The place may be gone by now: it is looked for again.
    const at =
      target && store.state.page.nodes[target.parentId] ? target : placeAfterSelection(store, 'picture')
    const edits = fragments.map((fragment, i) =>
      placeEdit(store.state.page, { ...at, index: at.index + i }, fragment, store.registry, newId),
    )
    store.do(pictures.length === 1 ? 'Added a picture' : `Added ${pictures.length} pictures`, edits, {
      select: fragments[0]!.rootId,
      also: fragments.slice(1).map(({ rootId }) => rootId),
    })
  })
}
