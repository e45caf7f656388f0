import { useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { lookFromTokens, readDesignTokens, tokenFile, type Look, type LookFromTokens } from '@gullyline/core'
import type { Site } from '../api/hooks.ts'
import { saveText } from '../exchange/save-text.ts'
import { Button } from '../ui/controls.tsx'
import { Acts, Trouble } from '../ui/form-parts.ts'
import { messageOf } from '../ui/message-of.ts'
import { LookDialog } from './look-dialog.tsx'
import { saveLook } from './save-look.ts'

/** No file of tokens is as large, in bytes. */
const LARGEST_FILE = 4_000_000

/** The look of the site as a file of design tokens: read, with all that becomes of it shown first, and written. */
export function LookSetting({ site, isReadOnly }: { readonly site: Site; readonly isReadOnly: boolean }) {
  const [read, setRead] = useState<LookFromTokens & { readonly name: string }>()
  const [before, setBefore] = useState<Look>()
  const [told, setTold] = useState('')
  const [trouble, setTrouble] = useState<string>()
  const attempt = async (act: () => Promise<void>): Promise<void> => {
    setTrouble(undefined)
    setTold('')
    try {
      await act()
    } catch (error) {
      setTrouble(messageOf(error))
    }
  }
  const open = (file: File): Promise<void> =>
    attempt(async () => {
      if (file.size > LARGEST_FILE)
        throw new Error('The file is larger than 4 MB, so it holds no design tokens. Nothing was changed.')
      setRead({ ...lookFromTokens(readDesignTokens(await file.text()), site.look), name: file.name })
    })
  const use = (look: Look): Promise<void> =>
    attempt(async () => {
      const now = site.look
      setRead(undefined)
      await saveLook(look, now)
      setBefore(now)
      setTold('The site has another look. The live site is being updated.')
    })
  const back = (look: Look): Promise<void> =>
    attempt(async () => {
      await saveLook(look, site.look)
      setBefore(undefined)
      setTold('The site has the look that it had before.')
    })
  return (
    <>
      <Acts>
        {!isReadOnly && (
          <FileTrigger
            acceptedFileTypes={['.json', '.tokens', 'application/json']}
            onSelect={(files) => files?.[0] && void open(files[0])}
          >
            <Button>Read design tokens…</Button>
          </FileTrigger>
        )}
        <Button onPress={() => saveText('look.tokens.json', 'application/json', tokenFile(site.look))}>
          Save as design tokens
        </Button>
        {before && <Button onPress={() => void back(before)}>Undo the change of the look</Button>}
      </Acts>
      <p role="status">{told}</p>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      {read && (
        <LookDialog
          site={site}
          read={read}
          onClose={() => setRead(undefined)}
          onUse={(look) => void use(look)}
        />
      )}
    </>
  )
}
