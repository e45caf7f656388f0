import { runCli } from './main.ts'

process.exitCode = await runCli(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  error: (text) => process.stderr.write(text),
})
