import type { ReadPage } from '@gullyline/core'

export interface FileTask {
  readonly name: string
  readonly text: string
}

export type FileAnswer = { readonly read: ReadPage } | { readonly trouble: string }

/** Longer than what may be in such a file is not even opened. */
const MOST_BYTES = 20_000_000

/** Reads a file of another program as a page. Aborting ends it at once. Throws with a sentence for people where it can't be read. */
export async function readPageFile(file: File, signal: AbortSignal): Promise<ReadPage> {
  if (file.size > MOST_BYTES)
    throw new Error(`“${file.name}” is larger than 20 MB. Nothing was read; split it into pages.`)
  const text = await file.text()
  signal.throwIfAborted()
  const worker = new Worker(new URL('./read-file.worker.ts', import.meta.url), { type: 'module' })
  try {
    const answer = await new Promise<FileAnswer>((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<FileAnswer>) => resolve(data)
      worker.onerror = () =>
        reject(new Error(`“${file.name}” could not be read. Nothing was changed; try again.`))
      signal.addEventListener('abort', () => reject(new Error('cancelled')))
      worker.postMessage({ name: file.name, text } satisfies FileTask)
    })
    if ('trouble' in answer) throw new Error(answer.trouble)
    return answer.read
  } finally {
    worker.terminate()
  }
}
