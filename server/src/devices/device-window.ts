/** The simulated device: a window with a screen of its own and a finger, for trying private addresses without another device. */
import { html } from 'hono/html'
import { SCREENS } from '@gullyline/core'

/** Devices that are held. */
const HELD = SCREENS.filter(({ width }) => width < 1000)
const CHOSEN = 'Phone'

export const WINDOW_CSS = `
@font-face{font-family:Plain;src:local("Hanken Grotesk Variable"),local("Hanken Grotesk")}
*{box-sizing:border-box}
html,body{height:100%}
body{display:grid;grid-template-rows:auto minmax(0,1fr);margin:0;background:#dfe5e1;color:#19211e;font:14px/1.4 Plain,system-ui,sans-serif}
header{display:flex;flex-wrap:wrap;align-items:center;gap:8px 12px;padding:8px 12px;border-bottom:1px solid #c3ccc7;background:#fff}
h1{margin:0;font-size:14px}
label{display:flex;align-items:center;gap:6px}
select,button{min-height:28px;padding:2px 8px;border:1px solid #77837d;border-radius:4px;background:#fff;color:inherit;font:inherit}
button[aria-pressed=true]{border-color:#0b6b79;background:#e0f1f3}
:focus-visible{outline:2px solid #0b6b79;outline-offset:2px}
output{color:#55605b}
main{display:grid;place-items:center;min-height:0;padding:20px;overflow:hidden}
[data-glass]{overflow:hidden;border-radius:10px;background:#fff;box-shadow:0 0 0 7px #19211e,0 10px 30px rgb(25 33 30/.35)}
iframe{display:block;border:0;transform-origin:0 0}
[data-finger]{position:fixed;width:34px;height:34px;margin:-17px 0 0 -17px;border:2px solid rgb(11 107 121/.7);border-radius:50%;background:rgb(255 255 255/.35);pointer-events:none}
[data-finger][data-down]{background:rgb(11 107 121/.45)}
[data-finger][hidden]{display:none}
`

/** The document of the device for the private address at `base`. */
export function deviceWindow(base: string): ReturnType<typeof html> {
  return html`<!DOCTYPE html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>Simulated device</title>
        <link rel="stylesheet" href="${base}window.css" />
        <script src="${base}window.js" defer></script>
      </head>
      <body>
        <header>
          <h1>Simulated device</h1>
          <label>
            Screen
            <select>
              ${HELD.map(
                ({ title, width, height }) =>
                  html`<option value="${width}x${height}" ${title === CHOSEN ? 'selected' : ''}>
                    ${title}
                  </option>`,
              )}
            </select>
          </label>
          <button type="button" data-turn aria-pressed="false">Rotate</button>
          <button type="button" data-still aria-pressed="false">Reduced motion</button>
          <output></output>
        </header>
        <main>
          <div data-glass><iframe title="The page on the device" src="${base}"></iframe></div>
        </main>
        <div data-finger hidden></div>
      </body>
    </html>`
}
