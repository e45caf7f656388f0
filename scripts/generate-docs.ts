/** Makes the documents that are made from the source: docs/help.md and docs/interface-texts.md. Tests fail where one is out of date. */
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { helpText } from './help-text.ts'
import { interfaceTexts, interfaceTextsPage } from './interface-texts.ts'

const root = join(import.meta.dirname, '..')

writeFileSync(join(root, 'docs/help.md'), helpText())
writeFileSync(join(root, 'docs/interface-texts.md'), interfaceTextsPage(interfaceTexts(root)))
