/** Reads a file away from the screen: a long one takes seconds. */
import { readFile, screenRegistry, UnreadableFile } from '@gullyline/core'
import { newId } from '../editor/session/new-id.ts'
import type { FileAnswer, FileTask } from './read-file.ts'

self.onmessage = ({ data: { name, text } }: MessageEvent<FileTask>) => {
  const answer = (given: FileAnswer): void => self.postMessage(given)
  try {
    answer({ read: readFile(name, text, screenRegistry, newId) })
  } catch (error) {
    answer({
      trouble:
        error instanceof UnreadableFile
          ? error.message
          : `“${name}” could not be read. Nothing was changed; save it as HTML or Markdown again, and try that.`,
    })
  }
}
