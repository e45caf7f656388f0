import { lazy, memo, Suspense, useState, type ComponentType, type SelectHTMLAttributes } from 'react'
import { fluidPx, isOwnColour, isOwnMeasure, type FieldSchema, type Look } from '@gullyline/core'
import { useSiteView } from '../site-view.ts'

const OwnValueDialog = lazy(async () => ({
  default: (await import('./own-value-dialog.tsx')).OwnValueDialog,
}))

const ANOTHER = '(another)'
/** The screen whose measure of a step is offered to go on from, in px. */
const WIDE = 1280

type SelectProps = SelectHTMLAttributes<HTMLSelectElement> & { readonly 'data-outside'?: '' | undefined }

interface OwnSelectProps extends Omit<SelectProps, 'onChange' | 'value'> {
  readonly as: ComponentType<SelectProps>
  readonly label: string
  readonly field: FieldSchema
  readonly value: string
  readonly options: Readonly<Record<string, string>>
  readonly onChange: (value: string) => void
}

/**
 * A list of what the look has, and a measure or colour of one's own where the site's keeper allows it. Drawn again only
 * when something of it changed: the details have a dozen, with a hundred options.
 */
export const OwnSelect = memo(function OwnSelect(props: OwnSelectProps) {
  const { as: Select, label, field, value, options, onChange, children, ...more } = props
  const { look } = useSiteView().renderer.context
  const [isAsking, setAsking] = useState(false)
  const isOwn = isOwnMeasure(value) || isOwnColour(value)
  const canBeOwn = look.ownValues === true && (field.control === 'step' || field.control === 'surface')
  return (
    <>
      <Select
        {...more}
        aria-label={label}
        value={value}
        data-outside={isOwn ? '' : undefined}
        onChange={({ target }) => (target.value === ANOTHER ? setAsking(true) : onChange(target.value))}
      >
        {Object.entries(options).map(([option, words]) => (
          <option key={option} value={option}>
            {words}
          </option>
        ))}
        {isOwn && <option value={value}>{ownWords(value)}</option>}
        {canBeOwn && (
          <option value={ANOTHER}>{field.control === 'step' ? 'Custom size…' : 'Custom colour…'}</option>
        )}
        {children}
      </Select>
      {isAsking && (
        <Suspense>
          <OwnValueDialog
            label={label}
            look={look}
            value={isOwn ? value : startOf(look, field, value)}
            onKeep={(chosen) => {
              setAsking(false)
              onChange(chosen)
            }}
            onClose={() => setAsking(false)}
          />
        </Suspense>
      )}
    </>
  )
})

/** Own values say that they are: what is not of the look is never mistaken for it. */
export function ownWords(value: string): string {
  return isOwnMeasure(value) ? `${value.slice(0, -2)} px, custom` : `${value}, custom`
}

/** What the look has there now, as a value to go on from. */
export function startOf(look: Look, field: FieldSchema, value: string): string {
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
