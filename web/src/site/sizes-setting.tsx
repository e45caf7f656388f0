import { useState } from 'react'
import styled from 'styled-components'
import {
  FEWEST_SIZES,
  MOST_SIZES,
  sizesFault,
  withFormerSize,
  withoutSize,
  withSize,
  type Look,
  type SiteSize,
  type WithSizes,
} from '@gullyline/core'
import type { Site } from '../api/hooks.ts'
import { Button, LineField, MainButton } from '../ui/controls.tsx'
import { useDraft } from '../ui/drafts.ts'
import { Acts, Note, Trouble } from '../ui/form-parts.ts'
import { messageOf } from '../ui/message-of.ts'
import { saveLook } from './save-look.ts'

/** The ends of the bar that shows the sizes, in px, which are those of the ruler. */
const SHOWN = { from: 320, to: 1920 } as const

const Bar = styled.div`
  display: flex;
  overflow: hidden;
  height: 30px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
  font-size: 12px;
  > span {
    overflow: hidden;
    padding: 6px 7px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > span + span {
    border-left: 2px solid var(--accent);
  }
`
const Sizes = styled.ul`
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 110px 112px auto auto;
    gap: 10px;
    align-items: end;
  }
  /* In line with what stands in the fields. */
  span {
    padding-bottom: 6px;
    font-variant-numeric: tabular-nums;
  }
`

/** Sizes as they are typed: where one begins may not be a number yet. */
interface TypedSizes {
  readonly sizes: readonly (Omit<SiteSize, 'from'> & { readonly from: string })[]
  readonly formerSizes: readonly SiteSize[]
}

function typed({ sizes, formerSizes = [] }: WithSizes): TypedSizes {
  return {
    sizes: sizes.map(({ key, name, from }) => ({ key, name, from: String(from) })),
    formerSizes,
  }
}

/** Reads what was typed; undefined for text that is no such thing, as another version of the program may have left it. */
function readTyped(text: string): TypedSizes | undefined {
  try {
    const { sizes, formerSizes } = JSON.parse(text) as Partial<TypedSizes>
    const isWhole =
      Array.isArray(sizes) &&
      sizes.length > 0 &&
      sizes.every(({ key, name, from }: Partial<TypedSizes['sizes'][number]>) =>
        [key, name, from].every((value) => typeof value === 'string'),
      )
    return isWhole && Array.isArray(formerSizes) ? { sizes, formerSizes } : undefined
  } catch {
    return undefined
  }
}

function sizesOf({ sizes, formerSizes }: TypedSizes): WithSizes {
  const number = (from: string): number => (/^\s*\d+\s*$/.test(from) ? Number(from) : NaN)
  return {
    sizes: sizes.map((size) => ({ ...size, name: size.name.trim(), from: number(size.from) })),
    ...(formerSizes.length > 0 ? { formerSizes } : {}),
  }
}

function lookWith({ formerSizes: _formerSizes, ...look }: Look, sizes: WithSizes): Look {
  return { ...look, ...sizes }
}

/** The sizes of the site: their names, where they begin, and how many there are. All of it is saved at once. */
export function SizesSetting({ site, isReadOnly }: { readonly site: Site; readonly isReadOnly: boolean }) {
  const { look } = site
  const [told, setTold] = useState('')
  const [trouble, setTrouble] = useState<string>()
  const draft = useDraft({
    name: 'site.sizes',
    label: 'Screen sizes',
    saved: JSON.stringify(typed(look)),
    save: async (text, base) => {
      const read = (from: string): WithSizes => sizesOf(readTyped(from) ?? typed(look))
      const next = read(text)
      const fault = sizesFault(next)
      if (fault !== undefined) throw new Error(fault)
      await saveLook(lookWith(look, next), lookWith(look, read(base)))
      setTold('The sizes were saved. The live site is being updated.')
      return true
    },
  })
  const shown = readTyped(draft.text) ?? typed(look)
  const { sizes, formerSizes } = shown
  const now = sizesOf(shown)
  const fault = sizesFault(now)
  const write = (next: TypedSizes): void => {
    setTold('')
    setTrouble(undefined)
    draft.setText(JSON.stringify(next))
  }
  const setSize = (i: number, change: Partial<TypedSizes['sizes'][number]>): void =>
    write({ sizes: sizes.with(i, { ...sizes[i]!, ...change }), formerSizes })
  const put = (next: WithSizes): void => write(typed(next))
  const save = (): void => {
    draft.save().catch((error: unknown) => setTrouble(messageOf(error)))
  }
  const mayAdd = fault === undefined && now.sizes.length < MOST_SIZES
  return (
    <>
      {fault === undefined && <SizesBar sizes={now.sizes} />}
      <Sizes>
        {sizes.map(({ key, name, from }, i) => {
          const isNarrowest = i === sizes.length - 1
          const title = name.trim() || 'this size'
          const divided = fault === undefined ? dividedAt(now, i) : undefined
          return (
            <li key={key}>
              <LineField
                label="Name"
                value={name}
                onChange={(next) => setSize(i, { name: next })}
                isReadOnly={isReadOnly}
              />
              {isNarrowest ? (
                <span>{sizes[i - 1] ? `below ${sizes[i - 1]!.from} px` : ''}</span>
              ) : (
                <LineField
                  label="From, in px"
                  value={from}
                  onChange={(next) => setSize(i, { from: next })}
                  isReadOnly={isReadOnly}
                />
              )}
              <span>{isNarrowest ? '' : i === 0 ? 'and wider' : `below ${sizes[i - 1]!.from} px`}</span>
              {!isReadOnly && (
                <>
                  <Button
                    aria-label={`Divide ${title}`}
                    isDisabled={!mayAdd || divided === undefined}
                    onPress={() =>
                      divided !== undefined && put(withSize(now, { name: freeName(now), below: divided }))
                    }
                  >
                    Divide
                  </Button>
                  <Button
                    aria-label={`Delete ${title}`}
                    isDisabled={i === 0 || fault !== undefined || sizes.length <= FEWEST_SIZES}
                    onPress={() => put(withoutSize(now, key))}
                  >
                    Delete
                  </Button>
                </>
              )}
            </li>
          )
        })}
      </Sizes>
      <Note>
        Dividing a size changes no page until something is set at the new one. Pages keep what was set at a
        deleted size: the next narrower size inherits it, and restoring the size brings it back.
      </Note>
      {!isReadOnly && formerSizes.length > 0 && (
        <Acts>
          {formerSizes.map(({ key, name }) => (
            <Button key={key} isDisabled={!mayAdd} onPress={() => put(withFormerSize(now, key))}>
              Restore {name}
            </Button>
          ))}
        </Acts>
      )}
      {draft.theirs !== undefined && (
        <Trouble role="alert">
          Someone else changed the sizes meanwhile. Cancel to see theirs, and change them again.
        </Trouble>
      )}
      {(draft.isChanged ? (fault ?? trouble) : trouble) && (
        <Trouble role="alert">{draft.isChanged ? (fault ?? trouble) : trouble}</Trouble>
      )}
      {draft.isChanged && !isReadOnly && (
        <Acts>
          <Button onPress={draft.reset}>Cancel</Button>
          <MainButton isDisabled={fault !== undefined || draft.theirs !== undefined} onPress={save}>
            Save screen sizes
          </MainButton>
        </Acts>
      )}
      <p role="status">{told}</p>
    </>
  )
}

function SizesBar({ sizes }: { readonly sizes: readonly SiteSize[] }) {
  return (
    <Bar aria-hidden="true">
      {sizes
        .map(({ key, name, from }, i) => {
          const start = Math.max(SHOWN.from, from)
          const end = Math.min(SHOWN.to, sizes[i - 1]?.from ?? SHOWN.to)
          return (
            <span key={key} style={{ flex: `${Math.max(0, end - start)} 0 0` }} title={name}>
              {name}
            </span>
          )
        })
        .reverse()}
    </Bar>
  )
}

/** The middle of a size, where it is divided; undefined where it is too small for two. */
function dividedAt(at: WithSizes, i: number): number | undefined {
  const from = Math.max(SHOWN.from, at.sizes[i]!.from)
  const to = at.sizes[i - 1]?.from ?? SHOWN.to
  const middle = Math.round((from + to) / 20) * 10
  return sizesFault(withSize(at, { name: freeName(at), below: middle })) === undefined ? middle : undefined
}

/** A name that no size has. */
function freeName({ sizes }: WithSizes): string {
  const taken = new Set(sizes.map(({ name }) => name.toLowerCase()))
  let number = sizes.length + 1
  while (taken.has(`size ${number}`)) number++
  return `size ${number}`
}
