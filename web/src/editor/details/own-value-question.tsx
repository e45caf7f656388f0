import { fluidPx, isOwnColour, isOwnMeasure, type FieldSchema, type Look } from '@gullyline/core'
import { later } from '../../ui/later.ts'
import { LaterDialog } from '../../ui/later-part.tsx'
import { useRenderer } from '../session/site-view.ts'

const ownValueDialog = later(() => import('./own-value-dialog.tsx'))

/** The screen whose measure of a step is offered to go on from, in px. */
const WIDE = 1280

interface OwnValueQuestionProps {
  readonly label: string
  readonly field: FieldSchema
  /** The value in force, of the look or not. */
  readonly value: string
  readonly onKeep: (value: string) => void
  readonly onClose: () => void
}

/** Asks for a size or a colour that the look does not have, beginning with the one in force. */
export function OwnValueQuestion({ label, field, value, onKeep, onClose }: OwnValueQuestionProps) {
  const { look } = useRenderer().context
  const isOwn = isOwnMeasure(value) || isOwnColour(value)
  return (
    <LaterDialog code={ownValueDialog} onClose={onClose}>
      {({ OwnValueDialog }) => (
        <OwnValueDialog
          label={label}
          look={look}
          value={isOwn ? value : startOf(look, field, value)}
          onKeep={onKeep}
          onClose={onClose}
        />
      )}
    </LaterDialog>
  )
}

/** What the look has there now, as a value to go on from. */
function startOf(look: Look, field: FieldSchema, value: string): string {
  if (field.control === 'surface')
    return (look.surfaces[value] ?? look.surfaces[look.pageSurface])?.background ?? '#ffffff'
  const length = field.scale === 'type' ? typeSize(look, value) : (lengthsOf(look, field)[value] ?? 0)
  const px = typeof length === 'number' ? length : fluidPx(length, WIDE)
  return `${Math.min(999, Math.round(px))}px`
}

function lengthsOf(look: Look, { scale }: FieldSchema): Readonly<Record<string, number | Look['gutter']>> {
  return scale === 'radius' ? look.radius : look.space
}

function typeSize(look: Look, step: string): Look['gutter'] {
  const styles: Readonly<Record<string, Look['type']['body']>> = look.type
  return (styles[step] ?? look.type.body).size
}
