import { spawn } from 'node:child_process'

/** Runs a command to its end. Gives its exit code and, unless it writes straight to the terminal, what it printed. */
export function runCommand(command, args, { cwd, env, show = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: show ? ['ignore', 'inherit', 'inherit'] : ['ignore', 'pipe', 'pipe'],
    })
    let output = ''
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (part) => (output += part))
    child.on('error', reject)
    child.on('close', (code) => resolve({ code, output }))
  })
}
