import { Search } from 'lucide'
import type { ReactNode, Ref } from 'react'
import {
  Button as AriaButton,
  Input,
  Label,
  TextField,
  Tooltip,
  TooltipTrigger,
  type ButtonProps,
} from 'react-aria-components'
import styled, { css } from 'styled-components'
import { Icon } from './icon.tsx'

/** Words for measures and keys. */
export const mono = css`
  font-family: 'Martian Mono Variable', monospace;
  font-size: 10.5px;
  letter-spacing: 0;
`

const base = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  height: 30px;
  padding: 0 12px;
  border: 1px solid var(--lineStrong);
  border-radius: 5px;
  background: var(--paper);
  color: var(--strong);
  font-weight: 550;
  white-space: nowrap;
  cursor: default;
  &[data-hovered] {
    background: var(--panel);
  }
  &[data-pressed] {
    background: var(--line);
  }
  &[data-disabled] {
    color: var(--control);
    border-color: var(--line);
  }
`

export const Button = styled(AriaButton)`
  ${base}
  &[aria-pressed='true'] {
    background: var(--accentTint);
    border-color: var(--accent);
    color: var(--accent);
  }
`

/** The one act that the screen is for. */
export const MainButton = styled(AriaButton)`
  ${base}
  background: var(--accent);
  border-color: var(--accent);
  color: var(--onAccent);
  &[data-hovered] {
    background: var(--accentBright);
  }
  &[data-pressed] {
    background: var(--accent);
  }
  &[data-disabled] {
    background: var(--line);
    border-color: var(--line);
    color: var(--quiet);
  }
`

const SquareButton = styled(AriaButton)`
  ${base}
  width: 28px;
  height: 28px;
  padding: 0;
  border-color: transparent;
  background: none;
  &[data-disabled] {
    border-color: transparent;
  }
`

const Tip = styled(Tooltip)`
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 5px 9px;
  border-radius: 5px;
  background: #19211e;
  color: #f3f6f3;
  font-size: 12px;
  box-shadow: 0 4px 16px rgb(0 0 0 / 25%);
`

export const Keys = styled.kbd`
  ${mono}
  padding: 1px 5px;
  border: 1px solid var(--lineStrong);
  border-bottom-width: 2px;
  border-radius: 4px;
  background: var(--paper);
  color: var(--plain);
`

const TipKeys = styled(Keys)`
  background: none;
  color: #b9c4bc;
  border-color: #5c6963;
`

interface IconButtonProps extends Omit<ButtonProps, 'children'> {
  readonly label: string
  readonly keys?: string
  readonly children: ReactNode
}

/** A button that shows a picture; its name and its shortcut are in a tooltip. */
export function IconButton({ label, keys, children, ...props }: IconButtonProps) {
  return (
    <TooltipTrigger delay={400}>
      <SquareButton aria-label={label} {...props}>
        {children}
      </SquareButton>
      <Tip offset={6}>
        {label} {keys && <TipKeys>{keys}</TipKeys>}
      </Tip>
    </TooltipTrigger>
  )
}

export const fieldBox = css`
  width: 100%;
  min-width: 0;
  height: 28px;
  padding: 0 9px;
  border: 1px solid var(--control);
  border-radius: 4px;
  background: var(--paper);
  color: var(--strong);
`

const Box = styled(Input)`
  ${fieldBox}
`

const FieldLabel = styled(Label)`
  display: block;
  margin-bottom: 4px;
  color: var(--quiet);
  font-size: 12px;
`

const Find = styled.label`
  position: relative;
  display: block;
  svg {
    position: absolute;
    left: 9px;
    top: 7px;
    color: var(--quiet);
  }
  input {
    ${fieldBox}
    height: 30px;
    padding-left: 32px;
  }
`

interface FindBoxProps {
  readonly label: string
  readonly placeholder: string
  readonly value: string
  readonly onChange: (value: string) => void
  readonly autoFocus?: boolean
  /** Called for Enter, with the field itself. */
  readonly onEnter?: (field: HTMLInputElement) => void
  /** Called for Escape when nothing is typed. */
  readonly onLeave?: () => void
}

/** A field to find things by typing. Escape takes back what was typed, and then leaves. */
export function FindBox(props: FindBoxProps) {
  const { label, placeholder, value, onChange, autoFocus = false, onEnter, onLeave } = props
  return (
    <Find>
      <Icon of={Search} size={16} strokeWidth={1.75} aria-hidden="true" />
      <input
        autoFocus={autoFocus}
        aria-label={label}
        placeholder={placeholder}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onEnter?.(event.currentTarget)
          if (event.key !== 'Escape') return
          if (value === '') onLeave?.()
          else onChange('')
        }}
      />
    </Find>
  )
}

interface LineFieldProps {
  readonly label: string
  readonly value: string
  readonly onChange: (value: string) => void
  readonly autoFocus?: boolean
  readonly placeholder?: string
  readonly type?: 'text' | 'password'
  readonly autoComplete?: string
  readonly isReadOnly?: boolean
  readonly inputRef?: Ref<HTMLInputElement>
}

/** One line of words under its label. */
export function LineField({
  label,
  placeholder,
  autoFocus = false,
  autoComplete = 'off',
  inputRef,
  ...field
}: LineFieldProps) {
  return (
    <TextField autoFocus={autoFocus} autoComplete={autoComplete} {...field}>
      <FieldLabel>{label}</FieldLabel>
      <Box ref={inputRef} placeholder={placeholder ?? ''} />
    </TextField>
  )
}

const TabRow = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  button {
    padding: 4px 9px 5px;
    border: 0;
    border-bottom: 2px solid transparent;
    background: none;
    color: var(--quiet);
    font-weight: 550;
  }
  button[aria-pressed='true'] {
    border-color: var(--accent);
    color: var(--accent);
  }
`

interface TabsProps<T extends string> {
  readonly label: string
  readonly value: T
  readonly options: readonly (readonly [value: T, title: string])[]
  readonly onChange: (value: T) => void
}

/** A few kinds of things, of which one is shown. */
export function Tabs<T extends string>({ label, value, options, onChange }: TabsProps<T>) {
  return (
    <TabRow role="group" aria-label={label}>
      {options.map(([one, title]) => (
        <button key={one} type="button" aria-pressed={one === value} onClick={() => onChange(one)}>
          {title}
        </button>
      ))}
    </TabRow>
  )
}
