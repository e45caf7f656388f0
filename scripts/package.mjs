/** `npm run package -- …`: packages of an installation; see server/src/exchange/package-command.ts. */
import { runServerCommand } from './lib/server-command.mjs'

await runServerCommand('package-command')
