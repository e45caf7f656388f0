import { useEffect, useRef, useState } from 'react'
import styled from 'styled-components'
import { RULES } from '@gullyline/core'
import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { framedPage, PAGE_SANDBOX } from '../../ui/framed-page.ts'
import { SideBySide } from '../../ui/side-by-side.ts'
import { messageOf } from '../../ui/message-of.ts'
import { useStore } from '../session/editor-store.ts'
import { useGullyline, type ShownGully } from './gully-context.tsx'
import { rangeOf } from './gully-range.ts'
import type { MeasuredDocument } from './measured-html.ts'
import type { TriedFix } from './sweeper.ts'

const Choices = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  button[aria-pressed='true'] {
    border-color: var(--accentBright);
    background: var(--accentTint);
  }
`
const Window = styled.div`
  position: relative;
  height: 300px;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 4px;
  iframe {
    border: 0;
    transform-origin: 0 0;
  }
`
const WIDTH = 325
const HEIGHT = 300

/** Changes that mend a gully, each laid out before it is applied, at the width where the gully is worst. */
export function FixDialog({ gully, onClose }: { gully: ShownGully; onClose: () => void }) {
  const store = useStore()
  const { sweeper } = useGullyline()
  const [page] = useState(store.state.page)
  const [fixes, setFixes] = useState<readonly TriedFix[]>()
  const [trouble, setTrouble] = useState<string>()
  const [chosen, setChosen] = useState(0)
  useEffect(() => {
    let isOpen = true
    sweeper?.fixesOf(page, gully).then(
      (found) => isOpen && setFixes(found.filter(({ edits }) => store.lockRefusal(edits) === undefined)),
      (error: unknown) => isOpen && setTrouble(messageOf(error)),
    )
    return () => {
      isOpen = false
    }
  }, [sweeper, page, gully, store])
  const fix = fixes?.[chosen]
  const { title } = RULES.get(gully.rule)!
  const apply = (): void => {
    if (fix && store.do(`Fixed “${title}”: ${fix.title}`, fix.edits)) onClose()
  }
  return (
    <Dialog
      title={`Fix “${title}”, ${rangeOf(gully)}`}
      isWide
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={!fix} onPress={apply}>
            {fix ? `Apply: ${fix.title}` : 'Apply'}
          </MainButton>
        </>
      }
    >
      <p>{gully.why}.</p>
      {trouble !== undefined && <p role="alert">{trouble}</p>}
      {!fixes && trouble === undefined && <p role="status">Trying changes at {gully.worst} px…</p>}
      {fixes?.length === 0 && (
        <p role="status">
          No single change of layout fixes this. Nothing was changed. Shorten the text, or change the block in
          the details.
        </p>
      )}
      {fixes && fixes.length > 0 && (
        <Choices role="group" aria-label="Changes that fix it">
          {fixes.map(({ title: words }, i) => (
            <Button key={words} aria-pressed={i === chosen} onPress={() => setChosen(i)}>
              {words}
            </Button>
          ))}
        </Choices>
      )}
      {fix && (
        <SideBySide>
          <Side title={`Now, ${gully.worst} px`} document={fix.before} gully={gully} />
          <Side title={`${fix.title}, ${gully.worst} px`} document={fix.after} gully={gully} />
        </SideBySide>
      )}
    </Dialog>
  )
}

interface SideProps {
  readonly title: string
  readonly document: MeasuredDocument
  readonly gully: ShownGully
}

/** The page at the width of the gully, scrolled to the block. */
function Side({ title, document: { body, sheet }, gully }: SideProps) {
  const frame = useRef<HTMLIFrameElement>(null)
  const scale = Math.min(1, WIDTH / gully.worst)
  const html = framedPage(sheet, body)
  const reveal = (): void => {
    const inner = frame.current?.contentDocument
    const element = inner?.querySelector<HTMLElement>(`[data-node="${CSS.escape(gully.nodeId ?? '')}"]`)
    if (!element) return
    element.scrollIntoView({ block: 'center' })
    element.style.outline = `${Math.ceil(2 / scale)}px solid #0e8597`
  }
  return (
    <figure>
      <figcaption>{title}</figcaption>
      <Window>
        <iframe
          ref={frame}
          title={title}
          sandbox={PAGE_SANDBOX}
          tabIndex={-1}
          srcDoc={html}
          width={gully.worst}
          height={Math.ceil(HEIGHT / scale)}
          style={{ transform: `scale(${scale})` }}
          onLoad={reveal}
        />
      </Window>
    </figure>
  )
}
