/** Uploads under way: one list for the whole screen, so that they go on whatever is opened meanwhile. */
import type { ErrorBody, Picture, SiteFile } from '@gullyline/core'
import { tellSignedOut } from '../api/client.ts'
import { refreshLibrary } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
import { useValue, Value } from '../ui/value.ts'

/** The two parts of the library. */
export type Shelf = 'pictures' | 'files'

export interface Upload {
  readonly id: number
  readonly to: Shelf
  readonly name: string
  readonly state:
    | { readonly type: 'waiting' }
    /** `share` is how much has been sent, from 0 to 1; then the server makes its sizes. */
    | { readonly type: 'sending'; readonly share: number }
    | { readonly type: 'done'; readonly item: Picture | SiteFile }
    /** `isFinal` when sending the same bytes again would be refused again. */
    | { readonly type: 'refused'; readonly message: string; readonly isFinal: boolean }
}

/** This many are sent at a time: the server makes sizes one after another anyway. */
const AT_ONCE = 2

const uploads = new Value<readonly Upload[]>([])
let nextId = 1
const files = new Map<number, File>()
const requests = new Map<number, XMLHttpRequest>()

function change(id: number, state: Upload['state']): void {
  uploads.set(uploads.get().map((one) => (one.id === id ? { ...one, state } : one)))
}

export function useUploads(): readonly Upload[] {
  return useValue(uploads)
}

const PATHS: Readonly<Record<Shelf, string>> = { pictures: '/media', files: '/files' }

/** What waits for uploads to be through, by their ids. */
const awaited = new Map<number, (picture: Picture | undefined) => void>()

/** Adds pictures to the library, and gives those that were taken, in order, once all are through. */
export async function uploadPictures(chosen: readonly File[]): Promise<readonly Picture[]> {
  const ids = startUploads('pictures', chosen)
  const all = ids.map((id) => new Promise<Picture | undefined>((resolve) => awaited.set(id, resolve)))
  return (await Promise.all(all)).filter((one) => one !== undefined)
}

function settle(id: number, state: Upload['state'] | undefined): void {
  // One that was refused may be sent again; only when it is taken off the list is it given up.
  if (state && state.type !== 'done') return
  awaited.get(id)?.(state?.type === 'done' && 'fallback' in state.item ? state.item : undefined)
  awaited.delete(id)
}

/** Adds files to the library, one line in the list for each; gives their ids there. */
export function startUploads(to: Shelf, chosen: readonly File[]): readonly number[] {
  const added = chosen.map((file): Upload => {
    const id = nextId++
    files.set(id, file)
    return { id, to, name: file.name || 'Pasted picture', state: { type: 'waiting' } }
  })
  uploads.set([...uploads.get(), ...added])
  sendNext()
  return added.map(({ id }) => id)
}

/** Stops an upload and takes it off the list; one that is done stays in the library. */
export function dropUpload(id: number): void {
  requests.get(id)?.abort()
  requests.delete(id)
  files.delete(id)
  uploads.set(uploads.get().filter((one) => one.id !== id))
  settle(id, undefined)
  sendNext()
}

/** Sends a file again that was refused, such as because the session had ended. */
export function sendAgain(id: number): void {
  change(id, { type: 'waiting' })
  sendNext()
}

function sendNext(): void {
  const waiting = uploads.get().find(({ state }) => state.type === 'waiting')
  if (!waiting || requests.size >= AT_ONCE) return
  const file = files.get(waiting.id)!
  const path = inSite(`${PATHS[waiting.to]}?name=${encodeURIComponent(waiting.name)}`)
  change(waiting.id, { type: 'sending', share: 0 })
  const request = sendFile('POST', path, file, (share) => change(waiting.id, { type: 'sending', share }))
  requests.set(waiting.id, request.xhr)
  void request.answer.then((state) => {
    if (!requests.delete(waiting.id)) return
    change(waiting.id, state)
    if (state.type === 'done') {
      files.delete(waiting.id)
      // The picture is known to the page before it is put there.
      void refreshLibrary().then(() => settle(waiting.id, state))
    }
    sendNext()
  })
  sendNext()
}

type Answer = Extract<Upload['state'], { type: 'done' | 'refused' }>

/** Sends a file and tells how far it is: what `fetch` can't. */
export function sendFile(
  method: 'POST' | 'PUT',
  path: string,
  file: File,
  onShare: (share: number) => void,
): { readonly xhr: XMLHttpRequest; readonly answer: Promise<Answer> } {
  const xhr = new XMLHttpRequest()
  xhr.open(method, path)
  xhr.setRequestHeader('content-type', 'application/octet-stream')
  xhr.responseType = 'json'
  xhr.upload.onprogress = ({ loaded, total }) => onShare(total === 0 ? 0 : loaded / total)
  const answer = new Promise<Answer>((resolve) => {
    xhr.onload = () => {
      if (xhr.status < 300 && xhr.response)
        return resolve({ type: 'done', item: xhr.response as Picture | SiteFile })
      const body = xhr.response as ErrorBody | null
      if (body?.code === 'not-signed-in') tellSignedOut()
      const message =
        body?.message ?? 'The server’s answer could not be read. The file was not uploaded. Try again.'
      resolve({ type: 'refused', message, isFinal: body?.code === 'not-valid' || body?.code === 'too-large' })
    }
    xhr.onerror = () =>
      resolve({
        type: 'refused',
        message: 'Can’t reach the server. The file was not uploaded. Try again.',
        isFinal: false,
      })
    xhr.onabort = () =>
      resolve({ type: 'refused', message: 'Cancelled. Nothing was uploaded.', isFinal: false })
  })
  xhr.send(file)
  return { xhr, answer }
}

/** Files among what was dropped or pasted. */
export function filesOf(data: DataTransfer | null): readonly File[] {
  return data ? [...data.files] : []
}
