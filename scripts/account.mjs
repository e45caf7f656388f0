/** `npm run account -- …`: accounts of an installation; see server/src/people/account-command.ts. */
import { runServerCommand } from './lib/server-command.mjs'

await runServerCommand('account-command')
