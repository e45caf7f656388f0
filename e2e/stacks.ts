/**
 * Playwright looks up the source of every frame of a stack, and notes a stack at each step of its own inside of the browser:
 * a fifth of its work. Where no file of ours is on it there is nothing to look up.
 */
const { prepareStackTrace: lookUp } = Error as {
  prepareStackTrace?: (this: void, error: Error, frames: NodeJS.CallSite[]) => unknown
}

if (lookUp)
  Error.prepareStackTrace = (error, frames) =>
    frames.some((frame) => isOurs(frame.getFileName()))
      ? lookUp(error, frames)
      : [String(error), ...frames.map(toText)].join('\n    at ')

function isOurs(file: string | null | undefined): boolean {
  return !!file && !file.startsWith('node:') && !/[\\/]node_modules[\\/]/.test(file)
}

/** As the engine writes a frame; the types don't say that it does. */
function toText(frame: NodeJS.CallSite): string {
  return `${frame as unknown as string}`
}
