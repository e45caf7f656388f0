/** The command line: the same core as the editor, without a server. See docs/command-line.md. */
import { COMMANDS } from './commands.ts'
import { EXIT, Unusable, type Exit, type Streams } from './outcome.ts'

/** Runs one command; what can't be used is told on `error` and ends with 2. */
export async function runCli(args: readonly string[], streams: Streams): Promise<Exit> {
  const [name = 'help', ...rest] = args
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined
  if (!command) {
    streams.error(`${name === 'help' ? '' : `There is no command "${name}".\n`}${help()}`)
    return name === 'help' ? EXIT.done : EXIT.unusable
  }
  try {
    return await command.run(rest, streams)
  } catch (error) {
    if (!(error instanceof Unusable)) throw error
    streams.error(`${error.message}\n`)
    return EXIT.unusable
  }
}

function help(): string {
  const lines = Object.values(COMMANDS).map(({ usage, about }) => `  ${usage.padEnd(24)} ${about}`)
  return `Commands:\n${lines.join('\n')}\nExit codes: 0 done, 1 findings of severity error, 2 unusable input.\n`
}
