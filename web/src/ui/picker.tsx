import { ChevronDown } from 'lucide'
import { matchSorter } from 'match-sorter'
import { useContext, useMemo, useState } from 'react'
import {
  Button,
  ComboBox,
  ComboBoxStateContext,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
} from 'react-aria-components'
import styled from 'styled-components'
import { fieldBox, mono } from './controls.tsx'
import { Icon } from './icon.tsx'

const Box = styled(ComboBox<PickerOption>)`
  display: grid;
  gap: 4px;
  min-width: 0;
`
const Name = styled(Label)`
  color: var(--quiet);
  font-size: 12px;
`
const Field = styled.div`
  position: relative;
  input {
    ${fieldBox}
    padding-right: 28px;
    text-overflow: ellipsis;
  }
  button {
    position: absolute;
    inset: 0 2px 0 auto;
    width: 26px;
    padding: 0;
    border: 0;
    background: none;
    color: var(--quiet);
  }
`
const Pop = styled(Popover)`
  width: max(var(--trigger-width), 260px);
  max-height: min(320px, 50vh);
  overflow: auto;
  padding: 4px;
  border-radius: 6px;
  background: var(--paper);
  color: var(--plain);
  box-shadow:
    0 0 0 1px var(--line),
    0 10px 30px rgb(25 33 30 / 30%);
`
const Item = styled(ListBoxItem)`
  padding: 4px 8px;
  border-radius: 4px;
  outline: none;
  &[data-focused] {
    background: var(--accentTint);
    color: var(--accent);
  }
  &[data-selected] {
    font-weight: 600;
  }
  small {
    ${mono}
    display: block;
    overflow: hidden;
    color: var(--quiet);
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`
const None = styled.p`
  padding: 6px 8px;
  color: var(--quiet);
  font-size: 12px;
`

export interface PickerOption {
  readonly id: string
  readonly title: string
  /** Beside the title, and found as well: the address of a page. */
  readonly detail?: string
  /** Other names that it is found by. */
  readonly synonyms?: readonly string[]
}

interface PickerProps {
  readonly label: string
  /** Shown above the field; otherwise the label is for screen readers alone. */
  readonly isLabelShown?: boolean
  readonly options: readonly PickerOption[]
  readonly value: string
  readonly onChange: (id: string) => void
  readonly placeholder?: string
  readonly isDisabled?: boolean
  readonly autoFocus?: boolean
  /** What is offered for a text that was typed, besides what it finds, such as an address. */
  readonly offer?: (typed: string) => readonly PickerOption[]
  /** Called for Escape when the list is closed. */
  readonly onLeave?: () => void
  /** More attributes for the field. */
  readonly inputProps?: Readonly<Record<`data-${string}`, string>>
}

/** Of thousands this many are drawn: nobody reads on, they type. */
const MOST_SHOWN = 60

/** One of many things, found by typing a part of its name or address. */
export function Picker(props: PickerProps) {
  const {
    label,
    isLabelShown = false,
    options,
    value,
    onChange,
    placeholder,
    isDisabled = false,
    autoFocus = false,
    offer,
    inputProps = {},
    onLeave,
  } = props
  const chosen = options.find(({ id }) => id === value)
  const [typed, setTyped] = useState<string>()
  const shown = useMemo(() => {
    const words = (typed ?? '').trim().split(/\s+/).filter(Boolean)
    const found = words.reduceRight<readonly PickerOption[]>(
      (left, word) => matchSorter(left, word, { keys: KEYS, threshold: matchSorter.rankings.CONTAINS }),
      options,
    )
    const more = words.length > 0 ? (offer?.(typed!.trim()) ?? []) : []
    return [...more, ...found.slice(0, MOST_SHOWN)]
  }, [options, typed, offer])
  const choose = (id: string): void => {
    setTyped(undefined)
    if (id !== value) onChange(id)
  }
  return (
    <Box
      aria-label={isLabelShown ? undefined : label}
      items={shown}
      inputValue={typed ?? chosen?.title ?? ''}
      onInputChange={(next) => setTyped(next === chosen?.title ? undefined : next)}
      selectedKey={value}
      onSelectionChange={(key) => key !== null && choose(String(key))}
      onOpenChange={(isOpen) => !isOpen && setTyped(undefined)}
      menuTrigger="manual"
      allowsEmptyCollection
      isDisabled={isDisabled}
      autoFocus={autoFocus}
    >
      {isLabelShown && <Name>{label}</Name>}
      <Field>
        <TypedInput
          inputProps={inputProps}
          placeholder={placeholder ?? ''}
          onEscape={onLeave}
          // With nothing gone to by the arrow keys, Enter takes the best match.
          onEnter={() => typed !== undefined && shown[0] && choose(shown[0].id)}
        />
        <Button>
          <Icon of={ChevronDown} size={15} strokeWidth={1.75} aria-hidden="true" />
        </Button>
      </Field>
      <Pop>
        <ListBox<PickerOption> renderEmptyState={() => <None>Nothing matches “{typed}”.</None>}>
          {({ id, title, detail }) => (
            <Item id={id} textValue={title}>
              {title}
              {detail !== undefined && <small>{detail}</small>}
            </Item>
          )}
        </ListBox>
      </Pop>
    </Box>
  )
}

interface TypedInputProps {
  readonly inputProps: Readonly<Record<`data-${string}`, string>>
  readonly placeholder: string
  readonly onEscape: (() => void) | undefined
  readonly onEnter: () => void
}

/** The field of the list: pressing it or typing opens the list, and nothing else does, such as a choice made elsewhere. */
function TypedInput({ inputProps, placeholder, onEscape, onEnter }: TypedInputProps) {
  const list = useContext(ComboBoxStateContext)
  return (
    <Input
      {...inputProps}
      placeholder={placeholder}
      onFocus={(event) => event.target.select()}
      onClick={() => list?.open(null, 'manual')}
      onInput={() => list?.open(null, 'manual')}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && list?.isOpen === false) onEscape?.()
        const isGoneTo = event.currentTarget.getAttribute('aria-activedescendant') !== null
        if (event.key === 'Enter' && !isGoneTo) onEnter()
      }}
    />
  )
}

const KEYS = ['title', 'detail', { key: 'synonyms', maxRanking: matchSorter.rankings.STARTS_WITH }]
