import { File as FileIcon, RotateCcw, Upload as UploadIcon, X } from 'lucide'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import styled from 'styled-components'
import type { MediaRequest, Picture, SiteFile } from '@gullyline/core'
import { request } from '../api/client.ts'
import { refreshLibrary } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
import { useDraft } from '../ui/drafts.ts'
import { Button, fieldBox, IconButton } from '../ui/controls.tsx'
import { messageOf } from '../ui/message-of.ts'
import {
  dropUpload,
  filesOf,
  sendAgain,
  startUploads,
  useUploads,
  type Shelf,
  type Upload,
} from './uploads.ts'
import { Icon } from '../ui/icon.tsx'

const Area = styled.div`
  display: grid;
  gap: 12px;
  min-height: 0;
  &[data-over] {
    outline: 2px dashed var(--accentBright);
    outline-offset: 6px;
    border-radius: 4px;
  }
`
const List = styled.ul`
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
`
const Line = styled.li`
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) auto auto;
  gap: 10px;
  align-items: center;
  padding: 6px 6px 6px 8px;
  border: 1px solid var(--line);
  border-radius: 5px;
  img {
    width: 44px;
    height: 32px;
    border-radius: 3px;
    object-fit: cover;
  }
  strong {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-weight: 600;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
  }
  small[role='alert'] {
    color: var(--clay);
  }
  progress {
    width: 100%;
    height: 6px;
    accent-color: var(--accent);
  }
`
const Alt = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
  margin-top: 4px;
  input[type='text'] {
    ${fieldBox}
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
    white-space: nowrap;
    font-size: 12px;
  }
`

const Choice = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-top: 4px;
`

interface UploadAreaProps {
  /** Undefined sorts them by their type. */
  readonly to?: Shelf | undefined
  readonly children: ReactNode
  /** Controls beside the button that chooses files. */
  readonly beside?: ReactNode
}

const WORDS = {
  pictures: { add: 'Add pictures', files: 'Picture files', accept: 'image/*,.svg' },
  files: { add: 'Add files', files: 'Files to add', accept: undefined },
  both: { add: 'Upload', files: 'Files to upload', accept: undefined },
} as const

/** A place where pictures or files can be added to the library: chosen, dropped or pasted, several at once. */
export function UploadArea({ children, beside, to }: UploadAreaProps) {
  const [isOver, setOver] = useState(false)
  const input = useRef<HTMLInputElement>(null)
  const uploads = useUploads().filter((upload) => to === undefined || upload.to === to)
  const words = WORDS[to ?? 'both']
  useEffect(() => {
    const paste = (event: ClipboardEvent): void => {
      const files = filesOf(event.clipboardData)
      if (files.length === 0) return
      event.preventDefault()
      addFiles(to, files)
    }
    document.addEventListener('paste', paste)
    return () => document.removeEventListener('paste', paste)
  }, [to])
  return (
    <Area
      data-over={isOver ? '' : undefined}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault()
        setOver(false)
        addFiles(to, filesOf(event.dataTransfer))
      }}
    >
      <div style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
        {beside}
        <Button onPress={() => input.current?.click()}>
          <Icon of={UploadIcon} size={15} strokeWidth={1.75} /> {words.add}
        </Button>
        <input
          ref={input}
          hidden
          type="file"
          multiple
          accept={words.accept}
          aria-label={words.files}
          onChange={(event) => {
            addFiles(to, [...(event.target.files ?? [])])
            event.target.value = ''
          }}
        />
      </div>
      {uploads.length > 0 && <UploadList uploads={uploads} />}
      {children}
    </Area>
  )
}

function addFiles(to: Shelf | undefined, files: readonly File[]): void {
  if (to) return void startUploads(to, files)
  startUploads('pictures', files.filter(isPictureFile))
  startUploads(
    'files',
    files.filter((file) => !isPictureFile(file)),
  )
}

/** Told by what the browser takes the file for; the server looks at its bytes. */
function isPictureFile({ type }: File): boolean {
  return type.startsWith('image/')
}

/** One line for each upload: how far it is, how to cancel it, and why it was refused. */
export function UploadList({ uploads }: { uploads: readonly Upload[] }) {
  return (
    <List aria-label="Uploads">
      {uploads.map((upload) => (
        <UploadLine key={upload.id} upload={upload} />
      ))}
    </List>
  )
}

function UploadLine({ upload: { id, name, state } }: { upload: Upload }) {
  const isDone = state.type === 'done' || state.type === 'refused'
  return (
    <Line>
      {state.type === 'done' && isPicture(state.item) ? (
        <img src={state.item.fallback} alt="" />
      ) : (
        <Icon
          of={FileIcon}
          size={20}
          strokeWidth={1.5}
          color="var(--quiet)"
          style={{ justifySelf: 'center' }}
          aria-hidden="true"
        />
      )}
      <div>
        <strong>{name}</strong>
        {state.type === 'waiting' && <small>Waiting</small>}
        {state.type === 'sending' && (
          <>
            <progress value={state.share} aria-label={`Uploading ${name}`} />
            <small>
              {state.share < 1 ? `${Math.round(state.share * 100)} % uploaded` : 'Uploaded; making its sizes'}
            </small>
          </>
        )}
        {state.type === 'refused' && <small role="alert">{state.message}</small>}
        {state.type === 'done' &&
          (isPicture(state.item) ? <PictureWords picture={state.item} /> : <small>Added</small>)}
      </div>
      {state.type === 'refused' && !state.isFinal ? (
        <IconButton label={`Upload ${name} again`} onPress={() => sendAgain(id)}>
          <Icon of={RotateCcw} size={15} strokeWidth={1.75} />
        </IconButton>
      ) : (
        <span />
      )}
      <IconButton
        label={isDone ? `Remove ${name} from this list` : `Cancel ${name}`}
        onPress={() => dropUpload(id)}
      >
        <Icon of={X} size={15} strokeWidth={1.75} />
      </IconButton>
    </Line>
  )
}

function isPicture(item: Picture | SiteFile): item is Picture {
  return 'fallback' in item
}

/** The picture's default alternative text, or that it needs none. Saved when the field is left; a draft until then. */
export function PictureWords({ picture }: { picture: Picture }) {
  const [trouble, setTrouble] = useState<string>()
  const path = inSite(`/media/${picture.id}`)
  const change = async (body: MediaRequest): Promise<boolean> => {
    setTrouble(undefined)
    try {
      await request(path, { method: 'PATCH', body })
      await refreshLibrary()
      return true
    } catch (error) {
      setTrouble(messageOf(error))
      await refreshLibrary()
      return false
    }
  }
  const label = `Alternative text of ${picture.name}`
  const draft = useDraft({
    name: `alt.${picture.id}`,
    label,
    saved: picture.alt,
    save: (alt, base) => change({ alt: alt.trim(), was: { alt: base } }),
  })
  const isDecoration = picture.isDecoration ?? false
  return (
    <>
      <Alt>
        <input
          type="text"
          aria-label={label}
          placeholder="Describe the picture in a few words"
          disabled={isDecoration}
          value={draft.text}
          onChange={(event) => draft.setText(event.target.value)}
          onBlur={() => void draft.save()}
        />
        <label>
          <input
            type="checkbox"
            checked={isDecoration}
            onChange={(event) => void change({ isDecoration: event.target.checked, was: { isDecoration } })}
          />
          Decorative
        </label>
      </Alt>
      {draft.theirs !== undefined ? (
        <Overtaken
          theirs={draft.theirs}
          onMine={() => {
            draft.accept()
            void draft.save()
          }}
          onTheirs={() => {
            setTrouble(undefined)
            draft.reset()
          }}
        />
      ) : (
        trouble && <small role="alert">{trouble}</small>
      )}
    </>
  )
}

interface OvertakenProps {
  readonly theirs: string
  readonly onMine: () => void
  readonly onTheirs: () => void
}

/** Someone else changed the same text meanwhile: the person chooses. */
function Overtaken({ theirs, onMine, onTheirs }: OvertakenProps) {
  return (
    <Choice role="alert">
      <small>
        {theirs === '' ? 'Someone else removed this text.' : `Someone else changed it to “${theirs}”.`}
      </small>
      <Button onPress={onMine}>Use mine</Button>
      <Button onPress={onTheirs}>Use theirs</Button>
    </Choice>
  )
}
