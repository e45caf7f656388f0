import type { MouseEvent, ReactNode } from 'react'
import { Dialog as AriaDialog, Heading, Modal, ModalOverlay } from 'react-aria-components'
import styled from 'styled-components'

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 50;
  display: grid;
  place-items: center;
  background: rgb(25 33 30 / 45%);
`

const Panel = styled(Modal)`
  width: min(460px, calc(100vw - 48px));
  &[data-wide] {
    width: min(720px, calc(100vw - 48px));
  }
  max-height: calc(100vh - 80px);
  overflow: auto;
  border-radius: 6px;
  background: var(--paper);
  color: var(--plain);
  box-shadow:
    0 0 0 1px var(--line),
    0 18px 60px rgb(0 0 0 / 35%);
`

const Body = styled(AriaDialog)`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  padding: 22px 24px;
  outline: none;
`

const Title = styled(Heading)`
  font-size: 15px;
`

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  justify-content: flex-end;
  position: sticky;
  bottom: 0;
  margin: 6px -24px -22px;
  padding: 12px 24px 22px;
  background: var(--paper);
`

interface DialogProps {
  readonly title: string
  readonly onClose: () => void
  readonly children: ReactNode
  /** Buttons, the one that goes on last. */
  readonly acts: ReactNode
  /** For questions that must be answered with one of the acts. */
  readonly mustAnswer?: boolean
  /** For those in which something is typed: a press beside them does not close them. */
  readonly isForm?: boolean
  /** For those that show pictures. */
  readonly isWide?: boolean
}

/** A press beside the dialog would leave the focus nowhere for a moment, and Escape pressed then would not be heard. */
function keepFocus(event: MouseEvent): void {
  if (event.target === event.currentTarget) event.preventDefault()
}

/** A question over the screen. Escape and a press beside it close it, unless it must be answered. */
export function Dialog(props: DialogProps) {
  const { title, onClose, children, acts, mustAnswer = false, isForm = false, isWide = false } = props
  return (
    <Veil
      isOpen
      isDismissable={!mustAnswer && !isForm}
      isKeyboardDismissDisabled={mustAnswer}
      onOpenChange={(open) => !open && onClose()}
      onMouseDown={keepFocus}
    >
      <Panel data-wide={isWide ? '' : undefined}>
        <Body role={mustAnswer ? 'alertdialog' : 'dialog'}>
          <Title slot="title">{title}</Title>
          {children}
          {acts !== null && <Acts>{acts}</Acts>}
        </Body>
      </Panel>
    </Veil>
  )
}
