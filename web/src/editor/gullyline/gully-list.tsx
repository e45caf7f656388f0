import { useState } from 'react'
import { Dialog, DialogTrigger } from 'react-aria-components'
import styled from 'styled-components'
import { ignoreEdit, RULES } from '@gullyline/core'
import { later } from '../../ui/later.ts'
import { LaterTypedDialog } from '../../ui/later-part.tsx'
import { Button, Tabs } from '../../ui/controls.tsx'
import { useValue } from '../../ui/value.ts'
import { STRIP } from '../../ui/theme.ts'
import { ListPop } from '../../ui/list-pop.ts'
import { TroubleMark } from '../problems/trouble-mark.tsx'
import { StripButton } from '../ruler/strip-button.ts'
import { useStore } from '../session/editor-store.ts'
import { useGullyline, useShownGullies, type ShownGully } from './gully-context.tsx'
import { FixDialogLater } from './fix-dialog-later.tsx'
import { rangeOf } from './gully-range.ts'
import type { GullyState } from './gully-state.ts'
import { isMeasuring, setMeasuring } from './measuring-choice.ts'
import { counted } from '../../ui/counted.ts'

const ignoreDialog = later(() => import('./ignore-dialog.tsx'))

const Opener = styled(StripButton)`
  right: 4px;
  background: ${STRIP.raised};
  color: #fff;
  small {
    color: ${STRIP.words};
    font-size: 11.5px;
  }
`
const WidePop = styled(ListPop)`
  width: 460px;
`
const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 10px 14px 4px;
  h2 {
    flex: 1;
    font-size: 13.5px;
  }
`
const Foot = styled.div`
  display: flex;
  gap: 8px;
  justify-content: flex-end;
  padding: 8px 14px 12px;
  border-top: 1px solid var(--line);
`
const None = styled.p`
  padding: 8px 16px 16px;
  color: var(--quiet);
`
const List = styled.ol`
  margin: 0;
  padding: 4px 6px 8px;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 6px;
    align-items: center;
    padding: 2px 8px 2px 0;
    border-radius: 4px;
  }
  li:hover {
    background: var(--panel);
  }
`
const Line = styled.button`
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr);
  gap: 1px 6px;
  align-items: baseline;
  padding: 6px 8px;
  border: 0;
  background: none;
  text-align: left;
  b {
    font-weight: 600;
  }
  small {
    grid-column: 2;
    color: var(--quiet);
    font-size: 12px;
  }
`

type Filter = 'all' | 'error' | 'warning' | 'ignored'

interface GullyListProps {
  readonly onChoose: (gully: ShownGully) => void
  /** Opens the chart of what was measured. */
  readonly onChart: () => void
}

/** How many gullies the page has; opens the list, whose every line leads to the width and the block. */
export function GullyList({ onChoose, onChart }: GullyListProps) {
  const { stage, progress } = useGullyline()
  const gullies = useShownGullies()
  const isOn = useValue(isMeasuring)
  const [isOpen, setOpen] = useState(false)
  const [filter, setFilter] = useState<Filter>('all')
  const [mended, setMended] = useState<ShownGully>()
  const [left, setLeft] = useState<ShownGully>()
  const mend = (gully: ShownGully): void => {
    setOpen(false)
    setMended(gully)
  }
  const leave = (gully: ShownGully): void => {
    setOpen(false)
    setLeft(gully)
  }
  const told = gullies.filter(({ ignored }) => ignored === undefined)
  const shown = gullies.filter((one) => isIn(one, filter))
  return (
    <>
      <DialogTrigger isOpen={isOpen} onOpenChange={setOpen}>
        <Opener>
          {told.length > 0 && (
            <TroubleMark severity={told.some(({ severity }) => severity === 'error') ? 'error' : 'warning'} />
          )}
          {(told.length > 0 || stage === 'whole') && countOf(told.length)}
          <small>{isOn ? STAGES[stage](Math.floor(progress * 100)) : 'Measuring paused'}</small>
        </Opener>
        <WidePop placement="bottom end">
          <Dialog aria-label="Gullies of this page">
            <Head>
              <h2>{isOn ? countOf(told.length) : 'Measuring paused'}</h2>
              <Tabs
                label="Show"
                value={filter}
                options={[
                  ['all', 'All'],
                  ['error', 'Problems'],
                  ['warning', 'Warnings'],
                  ['ignored', 'Ignored'],
                ]}
                onChange={setFilter}
              />
            </Head>
            {shown.length === 0 && (
              <None>
                {isOn ? NONE[filter] : 'Pages are not measured in this browser while you edit them.'}
              </None>
            )}
            <List>
              {shown.map((gully) => (
                <li key={`${gully.rule} ${gully.nodeId} ${gully.from}`}>
                  <Line
                    type="button"
                    title={`Why? ${gully.source}`}
                    onClick={() => {
                      onChoose(gully)
                      setOpen(false)
                    }}
                  >
                    <TroubleMark severity={gully.severity} title={gully.severity} />
                    <span>
                      <b>{RULES.get(gully.rule)!.title}</b>, {rangeOf(gully)}
                    </span>
                    <small>
                      {gully.why}
                      {gully.ignored !== undefined && `. Ignored: ${gully.ignored}`}
                    </small>
                  </Line>
                  {gully.ignored === undefined && (
                    <Button aria-label={`Fix ${RULES.get(gully.rule)!.title}`} onPress={() => mend(gully)}>
                      Fix…
                    </Button>
                  )}
                  <IgnoreButton gully={gully} onAsk={leave} />
                </li>
              ))}
            </List>
            <Foot>
              <Button onPress={() => setMeasuring(!isOn)}>
                {isOn ? 'Pause measuring' : 'Resume measuring'}
              </Button>
              {isOn && (
                <Button
                  onPress={() => {
                    setOpen(false)
                    onChart()
                  }}
                >
                  Chart by width…
                </Button>
              )}
            </Foot>
          </Dialog>
        </WidePop>
      </DialogTrigger>
      <FixDialogLater gully={mended} onClose={() => setMended(undefined)} />
      {left && (
        <LaterTypedDialog code={ignoreDialog} onClose={() => setLeft(undefined)}>
          {({ IgnoreDialog }) => <IgnoreDialog gully={left} onClose={() => setLeft(undefined)} />}
        </LaterTypedDialog>
      )}
    </>
  )
}

function IgnoreButton({ gully, onAsk }: { gully: ShownGully; onAsk: (gully: ShownGully) => void }) {
  const store = useStore()
  const title = RULES.get(gully.rule)!.title
  if (gully.ignored === undefined)
    return (
      <Button aria-label={`Ignore ${title}`} onPress={() => onAsk(gully)}>
        Ignore…
      </Button>
    )
  return (
    <Button
      aria-label={`Show ${title} again`}
      onPress={() => store.do(`Showed “${title}” again`, [ignoreEdit(store.state.page, gully, undefined)])}
    >
      Show again
    </Button>
  )
}

const STAGES: Readonly<Record<GullyState['stage'], (percent: number) => string>> = {
  waiting: () => 'measuring…',
  measuring: (percent) => `measuring, ${percent} %`,
  whole: () => 'at 1,601 widths',
  failed: () => 'not measured to the end; trying again',
}

const NONE: Readonly<Record<Filter, string>> = {
  all: 'Nothing on this page breaks at any width from 320 to 1920 px.',
  error: 'No problems at any width from 320 to 1920 px.',
  warning: 'No warnings at any width from 320 to 1920 px.',
  ignored: 'No gully of this page is ignored.',
}

function isIn({ severity, ignored }: ShownGully, filter: Filter): boolean {
  if (filter === 'ignored') return ignored !== undefined
  return ignored === undefined && (filter === 'all' || severity === filter)
}

function countOf(count: number): string {
  return count === 0 ? 'No gullies' : counted(count, 'gully', 'gullies')
}
