/** Runs on a page at a private address: shows it anew once it was edited, and says so when the address has ended. */

/** So often a page that is looked at asks whether it was edited. */
const ASKED_EVERY_MS = 1_000

const own = document.currentScript as HTMLScriptElement
const shown = own.dataset.mark
const address = new URL('mark', own.src)

async function ask(): Promise<void> {
  // What nobody looks at need not be new.
  if (document.visibilityState !== 'visible') return later()
  const answer = await fetch(address, { cache: 'no-store' }).catch(() => undefined)
  if (answer?.status === 404) return tellEnded()
  // Without an answer, the next one tells: a phone loses its network now and then.
  const mark = answer?.ok === true ? await answer.text().catch(() => shown) : shown
  // Browsers show it where it was scrolled to.
  if (mark !== shown) location.reload()
  else later()
}

function later(): void {
  setTimeout(() => void ask(), ASKED_EVERY_MS)
}

function tellEnded(): void {
  const note = document.createElement('p')
  note.setAttribute('role', 'status')
  note.textContent = 'This private address has ended. What you see follows the page no more.'
  const style: Partial<CSSStyleDeclaration> = {
    position: 'fixed',
    inset: 'auto 0 0 0',
    zIndex: '2147483647',
    margin: '0',
    padding: '12px 16px',
    background: '#19211e',
    color: '#fff',
    font: '16px/1.4 sans-serif',
  }
  Object.assign(note.style, style)
  document.body.append(note)
}

later()
