import { useNavigate } from 'react-router'
import type { PageSummary } from '@gullyline/core'
import type { Site } from '../api/hooks.ts'
import { LaterDialog } from '../ui/later-part.tsx'
import { later } from '../ui/later.ts'
import { ManyPagesDialog, type ManyPagesAct } from './many-pages-dialog.tsx'
import { AddPageDialog, CopyPageDialog, RenamePageDialog } from './page-dialogs.tsx'
import { withSubPages } from './tree-moves.ts'

const readFileDialog = later(() => import('./read-file-dialog.tsx'))

/** What is asked before a page is added or changed. */
export type Question =
  | { readonly act: 'rename' | 'copy'; readonly page: PageSummary }
  | { readonly act: 'add'; readonly parentId: string | null }
  | { readonly act: 'read' }
  | { readonly act: ManyPagesAct; readonly pages: readonly PageSummary[] }

interface QuestionsProps {
  readonly question: Question
  readonly site: Site
  readonly pages: readonly PageSummary[]
  readonly onClose: () => void
  readonly onDone: (words: string) => void
}

/** The dialog for a question. */
export function Questions({ question, site, pages, onClose, onDone }: QuestionsProps) {
  const navigate = useNavigate()
  switch (question.act) {
    case 'add':
      return (
        <AddPageDialog
          site={site}
          pages={pages}
          under={question.parentId}
          onClose={onClose}
          onAdded={(id) => void navigate(`/pages/${id}`)}
        />
      )
    case 'read':
      return (
        <LaterDialog code={readFileDialog} onClose={onClose}>
          {({ ReadFileDialog }) => (
            <ReadFileDialog pages={pages} onClose={onClose} onAdded={(id) => void navigate(`/pages/${id}`)} />
          )}
        </LaterDialog>
      )
    case 'rename':
      return <RenamePageDialog page={question.page} onClose={onClose} />
    case 'copy':
      return (
        <CopyPageDialog
          page={question.page}
          subPages={withSubPages(pages, question.page.id).size - 1}
          onClose={onClose}
        />
      )
    default:
      return (
        <ManyPagesDialog
          act={question.act}
          chosen={question.pages}
          site={site}
          pages={pages}
          onClose={onClose}
          onDone={onDone}
        />
      )
  }
}
