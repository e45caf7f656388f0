import { useState } from 'react'
import styled from 'styled-components'
import { madeFromOf, type SavedPart } from '@gullyline/core'
import { useParts } from '../../api/hooks.ts'
import { usePerson } from '../../api/person.ts'
import { Button } from '../../ui/controls.tsx'
import { later } from '../../ui/later.ts'
import { LaterDialog, LaterTypedDialog } from '../../ui/later-part.tsx'
import { messageOf } from '../../ui/message-of.ts'
import { usePage, useStore } from '../session/editor-store.ts'

const Group = styled.div`
  display: grid;
  gap: 6px;
  justify-items: start;
  p {
    color: var(--quiet);
    font-size: 12px;
  }
`

const makeDialog = later(() => import('./make-template-dialog.tsx'))
const newsDialog = later(() => import('./template-news-dialog.tsx'))
const lettingGo = later(() => import('./let-go-of-template.ts'))

/** Where the page was made from, what changed there since, and for the site's keepers how it becomes a template itself. */
export function TemplateActs() {
  const store = useStore()
  const { data: parts } = useParts()
  const isKeeper = usePerson().data?.role === 'keeper'
  const madeFrom = usePage(madeFromOf)
  const [opened, setOpened] = useState<'make' | 'news'>()
  const template = parts?.find(({ id, binnedAt }) => id === madeFrom?.template && binnedAt === null)
  const isChanged = madeFrom !== undefined && template !== undefined && template.version > madeFrom.version
  const close = (): void => setOpened(undefined)
  const letGo = (): Promise<void> =>
    lettingGo.load().then(
      ({ letGoOfTemplate }) => letGoOfTemplate(store),
      (error: unknown) => store.dispatch({ type: 'tell', words: messageOf(error), tone: 'refused' }),
    )
  return (
    <Group>
      {madeFrom && <p role="status">{madeFromWords(template, isChanged)}</p>}
      {isChanged && <Button onPress={() => setOpened('news')}>See what changed…</Button>}
      {isKeeper && (
        <Button onPress={() => setOpened('make')}>
          {template ? `Change “${template.name}”…` : 'Make a page template…'}
        </Button>
      )}
      {isKeeper && madeFrom && <Button onPress={() => void letGo()}>Make free of the template</Button>}
      {opened === 'make' && (
        <LaterTypedDialog code={makeDialog} onClose={close}>
          {({ MakeTemplateDialog }) => <MakeTemplateDialog template={template} onClose={close} />}
        </LaterTypedDialog>
      )}
      {opened === 'news' && template && (
        <LaterDialog code={newsDialog} onClose={close}>
          {({ TemplateNewsDialog }) => <TemplateNewsDialog template={template} onClose={close} />}
        </LaterDialog>
      )}
    </Group>
  )
}

function madeFromWords(template: SavedPart | undefined, isChanged: boolean): string {
  if (!template) return 'Made from a page template that was deleted. The page stays as it is.'
  return isChanged
    ? `Made from the page template “${template.name}”, which has changed since.`
    : `Made from the page template “${template.name}”.`
}
