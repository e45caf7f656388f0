import { exportPackage } from '../exchange/export-package.ts'
import { Button } from '../ui/controls.tsx'
import { useAct } from '../ui/use-act.ts'
import { Trouble } from '../ui/form-parts.ts'

interface ExportButtonProps {
  readonly words: string
  readonly ids: readonly string[]
  /** What the file is called. */
  readonly name: string
  readonly onDone: (words: string) => void
}

/** Has the browser save some parts as a package. */
export function ExportButton({ words, ids, name, onDone }: ExportButtonProps) {
  const act = useAct(async () => onDone(await exportPackage({ parts: ids }, name)))
  return (
    <div>
      <Button isDisabled={act.isBusy} onPress={act.run}>
        {words}
      </Button>
      {act.trouble && <Trouble role="alert">{act.trouble}</Trouble>}
    </div>
  )
}
