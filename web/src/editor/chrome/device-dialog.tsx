import { QRCodeSVG } from 'qrcode.react'
import { useEffect, useState } from 'react'
import styled from 'styled-components'
import type { PrivateAddress } from '@gullyline/core'
import { request } from '../../api/client.ts'
import { inSite } from '../../api/site-address.ts'
import { Button, fieldBox, mono } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { Note, Trouble } from '../../ui/form-parts.ts'
import { useAct } from '../../ui/use-act.ts'
import { useValue, Value } from '../../ui/value.ts'
import { when } from '../../ui/when.ts'
import { useStore } from '../session/editor-store.ts'

const Columns = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 20px;
  align-items: start;
  svg {
    display: block;
    width: 168px;
    height: 168px;
  }
`
const Text = styled.div`
  display: grid;
  gap: 10px;
  justify-items: start;
  p {
    margin: 0;
  }
`
const Line = styled.div`
  display: flex;
  gap: 8px;
  width: 100%;
`
const Address = styled.input`
  ${fieldBox}
  ${mono}
  flex: 1;
  min-width: 0;
  font-size: 12px;
`
const Names = styled.select`
  ${fieldBox}
  width: 100%;
`

interface Made {
  /** Of which page, in which tab. */
  readonly path: string
  readonly given: PrivateAddress
}

/** The address that was made last: nobody is told it again by the server. */
const made = new Value<Made | undefined>(undefined)

/** Shows where this page can be opened on other devices, as it is edited here. Makes the address where there is none yet. */
export function DeviceDialog({ onClose }: { onClose: () => void }) {
  const { pageId, tab } = useStore().journal.owner
  const path = inSite(`/pages/${pageId}/private-address/${tab}`)
  const last = useValue(made)
  const given = last?.path === path ? last.given : undefined
  const [hasEnded, setEnded] = useState(false)
  const [which, setWhich] = useState(0)
  const make = useAct(async () => {
    const answer = await request<PrivateAddress>(path, { method: 'POST', body: {} })
    made.set({ path, given: answer })
    setEnded(false)
  })
  const end = useAct(async () => {
    await request(path, { method: 'DELETE' })
    made.set(undefined)
    setEnded(true)
  })
  const expiresAt = given && Date.parse(given.expiresAt)
  useEffect(() => {
    if (expiresAt === undefined) return undefined
    const timer = window.setTimeout(() => {
      made.set(undefined)
      setEnded(true)
    }, expiresAt - Date.now())
    return () => window.clearTimeout(timer)
  }, [expiresAt])
  const { run, isBusy, trouble = end.trouble } = make
  const isWanted = given === undefined && !hasEnded && !isBusy && trouble === undefined
  useEffect(() => {
    if (isWanted) run()
  })
  const address = given?.addresses[which] ?? given?.addresses[0]
  const open = (): void =>
    void window.open(`${address}device`, 'gullyline-device', 'popup,width=470,height=940')
  return (
    <Dialog
      title="Open on another device"
      onClose={onClose}
      isWide
      acts={
        <>
          {address !== undefined && (
            <Button isDisabled={end.isBusy} onPress={end.run}>
              End address
            </Button>
          )}
          {address === undefined && !isBusy && <Button onPress={run}>Make a new address</Button>}
          {address !== undefined && <Button onPress={open}>Open simulated device</Button>}
          <Button onPress={onClose}>Close</Button>
        </>
      }
    >
      {trouble !== undefined && <Trouble role="alert">{trouble}</Trouble>}
      {hasEnded && <p role="status">The address has ended. Devices no longer see this page.</p>}
      {address === undefined && isBusy && <p aria-busy>Making a private address…</p>}
      {given && address !== undefined && (
        <Columns>
          <QRCodeSVG value={address} size={168} marginSize={2} title="QR code of the private address" />
          <Text>
            <p>
              Scan the code, or open the address. It shows this page while you edit it, saved or not, until{' '}
              <b>{when(given.expiresAt)}</b>. Anyone who has the address can see the page until then.
            </p>
            {given.addresses.length > 1 && (
              <label>
                Network{' '}
                <Names value={which} onChange={(event) => setWhich(Number(event.target.value))}>
                  {given.addresses.map((one, i) => (
                    <option key={one} value={i}>
                      {new URL(one).hostname}
                    </option>
                  ))}
                </Names>
              </label>
            )}
            <Line>
              <Address
                aria-label="Private address"
                readOnly
                value={address}
                onFocus={(event) => event.target.select()}
              />
              <CopyButton text={address} />
            </Line>
            {!given.isShared && (
              <Note>
                Only this computer can open it. For phones and tablets on your network, start Gullyline with{' '}
                <code>npm start -- --devices</code>, or try the simulated device.
              </Note>
            )}
          </Text>
        </Columns>
      )}
    </Dialog>
  )
}

function CopyButton({ text }: { text: string }) {
  const [copied, setCopied] = useState<string>()
  const copy = useAct(async () => {
    await navigator.clipboard.writeText(text)
    setCopied(text)
  })
  return (
    <Button onPress={copy.run}>
      {copy.trouble !== undefined ? 'Can’t copy' : copied === text ? 'Copied' : 'Copy'}
    </Button>
  )
}
