import { memo, useState, type ComponentType, type SelectHTMLAttributes } from 'react'
import { isOwnMeasure, type FieldSchema } from '@gullyline/core'
import { useRenderer } from '../session/site-view.ts'
import { OwnValueQuestion } from './own-value-question.tsx'

const ANOTHER = '(another)'

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
 * A list of what the look has, and a size of one's own where the administrator allows it. Drawn again only
 * when something of it changed: the details have a dozen, with a hundred options.
 */
export const OwnSelect = memo(function OwnSelect(props: OwnSelectProps) {
  const { as: Select, label, field, value, options, onChange, children, ...more } = props
  const { look } = useRenderer().context
  const [isAsking, setAsking] = useState(false)
  const isOwn = isOwnMeasure(value)
  const canBeOwn = look.ownValues === true && field.control === 'step'
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
        {canBeOwn && <option value={ANOTHER}>Custom size…</option>}
        {children}
      </Select>
      {isAsking && (
        <OwnValueQuestion
          label={label}
          field={field}
          value={value}
          onKeep={(chosen) => {
            setAsking(false)
            onChange(chosen)
          }}
          onClose={() => setAsking(false)}
        />
      )}
    </>
  )
})

/** Own values say that they are: what is not of the look is never mistaken for it. */
export function ownWords(value: string): string {
  return isOwnMeasure(value) ? `${value.slice(0, -2)} px, custom` : `${value}, custom`
}
