/** A browser of Safari's family, driven by the protocol of the W3C (WebDriver 2): Playwright drives no WebKit of Debian's. */
import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { freePort } from '../scripts/lib/ports.mjs'

/** Keys without a letter (WebDriver 2, "Keyboard actions"). */
export const KEYS = { control: '\uE009', enter: '\uE007', escape: '\uE00C' } as const

/** The library draws in memory, and as root without a sandbox of its own. */
const ENVIRONMENT = {
  WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: '1',
  WEBKIT_DISABLE_DMABUF_RENDERER: '1',
  WEBKIT_DISABLE_COMPOSITING_MODE: '1',
  LIBGL_ALWAYS_SOFTWARE: '1',
}

interface Answer {
  readonly value: unknown
}

async function call(address: string, method: string, body?: unknown): Promise<unknown> {
  const answer = await fetch(address, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
  const { value } = (await answer.json()) as Answer
  if (!answer.ok) throw new Error(`${method} ${address}: ${JSON.stringify(value)}`)
  return value
}

/** A screen for a browser that can't do without. Resolves with its name. */
async function startScreen(): Promise<readonly [ChildProcess, string]> {
  const screen = spawn('/usr/bin/Xvfb', ['-displayfd', '1', '-screen', '0', '1400x1000x24'], {
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  const [name] = (await once(screen.stdout, 'data')) as [Buffer]
  return [screen, `:${name.toString().trim()}`]
}

async function untilThere(address: string): Promise<void> {
  for (let tries = 0; tries < 100; tries++) {
    const answer = await fetch(`${address}/status`).catch(() => undefined)
    if (answer?.ok) return
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error('WebKitWebDriver does not answer')
}

export class WebKit {
  readonly #address: string
  readonly #processes: readonly ChildProcess[]

  private constructor(address: string, processes: readonly ChildProcess[]) {
    this.#address = address
    this.#processes = processes
  }

  static async start(): Promise<WebKit> {
    const [screen, display] = await startScreen()
    const port = await freePort()
    const driver = spawn('/usr/bin/WebKitWebDriver', [`--port=${port}`], {
      env: { ...process.env, ...ENVIRONMENT, DISPLAY: display },
      stdio: 'ignore',
    })
    const address = `http://127.0.0.1:${port}`
    const processes = [driver, screen]
    try {
      await untilThere(address)
      const session = await call(`${address}/session`, 'POST', {
        // With another one, this driver did not come back from opening a page of the editor.
        capabilities: { alwaysMatch: { pageLoadStrategy: 'none' } },
      })
      const { sessionId } = session as { readonly sessionId: string }
      return new WebKit(`${address}/session/${sessionId}`, processes)
    } catch (error) {
      for (const one of processes) one.kill()
      throw error
    }
  }

  async open(url: string): Promise<void> {
    await call(`${this.#address}/url`, 'POST', { url })
    const isThere = `return location.href === given[0] && document.readyState === 'complete'`
    while (!(await this.run<boolean>(isThere, url).catch(() => false)))
      await new Promise((resolve) => setTimeout(resolve, 100))
  }

  /** Runs the body of an async function in the page, with its arguments as `given`; returns what it returns. */
  async run<T>(body: string, ...given: readonly unknown[]): Promise<T> {
    const script = `const [done, ...given] = [...arguments].reverse();
      (async () => { ${body} })().then((value) => done({ value }), (error) => done({ error: String(error) }))`
    const told = await call(`${this.#address}/execute/async`, 'POST', { script, args: given.toReversed() })
    const { value, error } = told as { readonly value: T; readonly error?: string }
    if (error !== undefined) throw new Error(error)
    return value
  }

  async press(x: number, y: number): Promise<void> {
    await this.#act('pointer', [
      { type: 'pointerMove', x: Math.round(x), y: Math.round(y) },
      { type: 'pointerDown', button: 0 },
      { type: 'pointerUp', button: 0 },
    ])
  }

  async type(words: string): Promise<void> {
    for (const letter of words) await this.chord(letter)
  }

  /** Presses keys one after the other, and lets them go in the other order. */
  async chord(...keys: readonly string[]): Promise<void> {
    await this.#act('key', [
      ...keys.map((value) => ({ type: 'keyDown', value })),
      ...keys.toReversed().map((value) => ({ type: 'keyUp', value })),
    ])
  }

  async stop(): Promise<void> {
    await call(this.#address, 'DELETE').catch(() => undefined)
    for (const one of this.#processes) one.kill()
  }

  async #act(type: 'key' | 'pointer', actions: readonly unknown[]): Promise<void> {
    await call(`${this.#address}/actions`, 'POST', { actions: [{ type, id: type, actions }] })
  }
}
