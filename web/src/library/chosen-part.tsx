import { useState } from 'react'
import {
  LONGEST_PART_NAME,
  nameKey,
  type NewPartRequest,
  type PartFacts,
  type PartType,
  type SavedPart,
} from '@gullyline/core'
import { ApiError, request } from '../api/client.ts'
import { refreshPages, refreshParts } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
import { ImportDialog } from '../exchange/import-dialog.tsx'
import { useMe } from '../people/sign-in-gate.tsx'
import { Button } from '../ui/controls.tsx'
import { DraftLine } from '../ui/draft-line.tsx'
import { useDraft } from '../ui/drafts.ts'
import { messageOf } from '../ui/message-of.ts'
import { useAct } from '../ui/use-act.ts'
import { when } from '../ui/when.ts'
import { DeletePartDialog } from './delete-part-dialog.tsx'
import { ExportButton } from './export-button.tsx'
import { Acts, Trouble } from '../ui/form-parts.ts'
import { Note } from './library-parts.ts'
import { PartPages } from './part-pages.tsx'
import { sortOf, WORDS } from './part-sorts.ts'
import { PurposeField } from './purpose-field.tsx'

const ABOUT: Readonly<Record<PartType, string>> = {
  pattern: 'Placed on a page, it is an independent copy.',
  shared: 'It is edited on any page that shows it, and is the same on all of them.',
  template:
    'New pages can start from it. It is changed on a page that was made from it, under Page settings; the other pages take over what changed where their editors choose to.',
}
/** What is told of pages when a part is deleted. */
const STAYS: Readonly<Record<PartType, string>> = {
  pattern: ' Copies of it on pages stay.',
  shared: '',
  template: ' Pages made from it stay as they are.',
}

interface ChosenPartProps {
  readonly part: SavedPart
  readonly parts: readonly SavedPart[]
  readonly mayChange: boolean
  readonly onDone: (words: string) => void
}

/** What is said of a part, where it stands, and what can be done with it. */
export function ChosenPart({ part, parts, mayChange, onDone }: ChosenPartProps) {
  const { id, type, name, savedAt, savedBy, binnedAt } = part
  const word = WORDS[sortOf(part)].one
  const { sites } = useMe()
  const [isAsking, setAsking] = useState(false)
  const [isCopying, setCopying] = useState(false)
  const act = useAct(async () => {
    if (binnedAt === null) {
      try {
        await request(inSite(`/parts/${id}`), { method: 'DELETE' })
      } catch (error) {
        // Where it stands, the server knows: also in patterns, and in other shared sections alone.
        if (!(error instanceof ApiError) || error.body?.code !== 'in-use') throw error
        return setAsking(true)
      }
      const stays = STAYS[type]
      onDone(`Deleted the ${word} “${name}”.${stays} It can be restored under Deleted.`)
    } else {
      await request(inSite(`/parts/${id}/restore`), { method: 'POST', body: {} })
      onDone(`Restored the ${word} “${name}”.`)
    }
    await refreshParts()
  })
  const copying = useAct(async () => {
    const copy = freeName(`${name} (copy)`, parts)
    const { purpose, about, document } = part
    const body: NewPartRequest = { type, name: copy, purpose, about, document }
    await request(inSite('/parts'), { method: 'POST', body })
    await refreshParts()
    onDone(`Made “${copy}”, with nothing on any page yet.`)
  })
  const isOffered = binnedAt === null
  return (
    <>
      <h2>{name}</h2>
      <Note>
        Saved {when(savedAt)} by {savedBy}
        {binnedAt !== null && `, deleted ${when(binnedAt)}`}. {ABOUT[type]}
      </Note>
      {isOffered && <PartFields part={part} isReadOnly={!mayChange} onDone={onDone} />}
      {type !== 'pattern' && <PartPages part={part} />}
      {mayChange && (
        <Acts>
          {isOffered && <ExportButton words="Export" ids={[id]} name={name} onDone={onDone} />}
          {isOffered && sites.length > 1 && (
            <Button onPress={() => setCopying(true)}>Copy to another site…</Button>
          )}
          {isOffered && (
            <Button isDisabled={copying.isBusy} onPress={copying.run}>
              Duplicate
            </Button>
          )}
          <Button isDisabled={act.isBusy} onPress={act.run}>
            {isOffered ? `Delete ${word}` : `Restore ${word}`}
          </Button>
        </Acts>
      )}
      {(act.trouble ?? copying.trouble) && <Trouble role="alert">{act.trouble ?? copying.trouble}</Trouble>}
      {isCopying && <ImportDialog copied={{ parts: [id] }} onClose={() => setCopying(false)} />}
      {isAsking && (
        <DeletePartDialog
          part={part}
          parts={parts}
          onClose={() => setAsking(false)}
          onDone={(words) => {
            setAsking(false)
            onDone(words)
            void refreshParts()
            void refreshPages()
          }}
        />
      )}
    </>
  )
}

/** A name that no part has yet: the one wanted, or with a number behind it. */
function freeName(wanted: string, parts: readonly SavedPart[]): string {
  const taken = new Set(parts.map(({ name }) => nameKey(name)))
  let name = wanted.slice(0, LONGEST_PART_NAME)
  for (let n = 2; taken.has(nameKey(name)); n++)
    name = `${wanted.slice(0, LONGEST_PART_NAME - 4).trimEnd()} ${n}`
  return name
}

interface PartFieldsProps {
  readonly part: SavedPart
  readonly isReadOnly: boolean
  readonly onDone: (words: string) => void
}

function PartFields({ part, isReadOnly, onDone }: PartFieldsProps) {
  const change = async (wanted: Partial<PartFacts>, was: Partial<PartFacts>): Promise<true> => {
    await request(inSite(`/parts/${part.id}`), { method: 'PATCH', body: { ...wanted, was } })
    await refreshParts()
    onDone('Saved.')
    return true
  }
  const name = useDraft({
    name: `part.${part.id}.name`,
    label: `Name of “${part.name}”`,
    saved: part.name,
    save: (text, base) => change({ name: text }, { name: base }),
  })
  const about = useDraft({
    name: `part.${part.id}.about`,
    label: `Description of “${part.name}”`,
    saved: part.about,
    save: (text, base) => change({ about: text }, { about: base }),
  })
  const [trouble, setTrouble] = useState<string>()
  return (
    <>
      <DraftLine label="Name" draft={name} saved={part.name} isReadOnly={isReadOnly} />
      <PurposeField
        value={part.purpose}
        isDisabled={isReadOnly}
        onChange={(next) => {
          setTrouble(undefined)
          change({ purpose: next }, { purpose: part.purpose }).catch((error: unknown) =>
            setTrouble(messageOf(error)),
          )
        }}
      />
      <DraftLine label="Description" draft={about} saved={part.about} isReadOnly={isReadOnly} isOptional />
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </>
  )
}
