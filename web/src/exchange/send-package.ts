import type { ErrorBody, WaitingImport } from '@gullyline/core'
import { ApiError, tellSignedOut } from '../api/client.ts'

interface Sending {
  /** Where packages for the site are taken. */
  readonly address: string
  readonly onShare: (share: number) => void
  readonly signal: AbortSignal
}

/** Sends a package and tells how far it is. Throws `ApiError` with words for people, and what the signal was aborted with. */
export function sendPackage(file: Blob, { address, onShare, signal }: Sending): Promise<WaitingImport> {
  // What was cancelled while the package was being read is not sent any more.
  if (signal.aborted) return Promise.reject(signal.reason as Error)
  const xhr = new XMLHttpRequest()
  xhr.open('POST', address)
  xhr.setRequestHeader('content-type', 'application/octet-stream')
  xhr.responseType = 'json'
  xhr.upload.onprogress = ({ loaded, total }) => onShare(total === 0 ? 0 : loaded / total)
  signal.addEventListener('abort', () => xhr.abort())
  const answer = new Promise<WaitingImport>((resolve, reject) => {
    xhr.onload = () => {
      if (xhr.status < 300 && xhr.response) return resolve(xhr.response as WaitingImport)
      const body = (xhr.response ?? undefined) as ErrorBody | undefined
      if (body?.code === 'not-signed-in') tellSignedOut()
      reject(
        new ApiError(
          body?.message ?? 'The server’s answer could not be read. Nothing was changed. Try again.',
          body,
        ),
      )
    }
    xhr.onerror = () =>
      reject(
        new ApiError('Can’t reach the server. Nothing was changed. Try again.', undefined, {
          isUnreachable: true,
        }),
      )
    xhr.onabort = () => reject(signal.reason as Error)
  })
  xhr.send(file)
  return answer
}
