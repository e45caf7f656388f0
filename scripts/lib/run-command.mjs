import { spawn } from 'node:child_process'

/** Runs a command to its end, with `input` as its standard input. Gives its exit code and, unless it writes straight to the terminal, what it printed. `onOutput` is called with each part of that as it comes. */
export function runCommand(command, args, { cwd, env, show = false, input, onOutput } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: [input === undefined ? 'ignore' : 'pipe', ...(show ? ['inherit', 'inherit'] : ['pipe', 'pipe'])],
    })
    // A command that does not wait for its input says by its exit what was wrong.
    child.stdin?.on('error', () => undefined)
    child.stdin?.end(input)
    let output = ''
    for (const stream of [child.stdout, child.stderr]) {
      stream?.on('data', (part) => {
        output += part
        onOutput?.(part)
      })
    }
    child.on('error', reject)
    child.on('close', (code) => resolve({ code, output }))
  })
}
