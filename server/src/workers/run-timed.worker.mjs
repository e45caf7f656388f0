/** Runs the function of another file, and says when it begins: until then a thread starts and reads code, on some machines for seconds. */

/** @param {{ file: string, task: unknown, begun: import('node:worker_threads').MessagePort }} given */
export default async function run({ file, task, begun }) {
  const { default: act } = await import(file)
  begun.postMessage(null)
  return act(task)
}
