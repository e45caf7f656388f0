/** What scripts tell the person at the terminal: what is being done, and how to mend what failed. */

const started = Date.now()

let isSilent = process.env.GULLYLINE_QUIET === 'yes'

/** For programs whose output is read by others: nothing is said from now on. */
export function silence() {
  isSilent = true
}

export function say(words) {
  if (isSilent) return
  console.log(`[${((Date.now() - started) / 1000).toFixed(1).padStart(5)} s] ${words}`)
}

/** A failure with a sentence that says what happened and what to do. Shown without a stack. */
export class Stop extends Error {}

/** Runs a script's main function; a `Stop` is shown as its sentence, and every failure ends with exit code 1. */
export async function run(main) {
  try {
    await main()
  } catch (error) {
    console.error(`\n${error instanceof Stop ? error.message : (error?.stack ?? error)}\n`)
    process.exit(1)
  }
}
