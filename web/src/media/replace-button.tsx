import { useRef, useState } from 'react'
import styled from 'styled-components'
import { Button } from '../ui/controls.tsx'
import { sendFile } from './uploads.ts'
import { refreshLibrary } from '../api/hooks.ts'

const Trouble = styled.p`
  color: var(--clay);
  font-size: 12px;
`

interface ReplaceButtonProps {
  /** Where the new file is sent. */
  readonly path: string
  readonly label: string
  readonly accept?: string
  /** Said once all is sent, while the server goes on. */
  readonly afterSending: string
}

/** Puts another file in the place of one of the library, everywhere it is used. */
export function ReplaceButton({ path, label, accept, afterSending }: ReplaceButtonProps) {
  const input = useRef<HTMLInputElement>(null)
  const [share, setShare] = useState<number>()
  const [trouble, setTrouble] = useState<string>()
  const replace = async (file: File): Promise<void> => {
    setTrouble(undefined)
    setShare(0)
    const result = await sendFile('PUT', `${path}?name=${encodeURIComponent(file.name)}`, file, setShare)
      .answer
    setShare(undefined)
    if (result.type === 'refused') setTrouble(result.message)
    else await refreshLibrary()
  }
  return (
    <>
      <Button isDisabled={share !== undefined} aria-label={label} onPress={() => input.current?.click()}>
        {share === undefined ? 'Replace everywhere…' : share < 1 ? 'Uploading…' : afterSending}
      </Button>
      <input
        ref={input}
        hidden
        type="file"
        accept={accept}
        aria-label={`File for: ${label}`}
        onChange={(event) => {
          const [file] = event.target.files ?? []
          if (file) void replace(file)
          event.target.value = ''
        }}
      />
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </>
  )
}
