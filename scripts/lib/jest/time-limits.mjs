/** The runner that we use has no time limits: a test that never ends fails here, as it does in Jest's own. */
import { addEventHandler } from 'jest-circus'
import { timesOf } from '../soak.mjs'

/** Nothing here asserts speed: a loaded machine may take its time. */
const USUAL_MS = timesOf(180_000, 14_400_000)

addEventHandler((event, { currentDescribeBlock }) => {
  if (event.name === 'add_test') limit(currentDescribeBlock.children.at(-1), event.timeout)
  if (event.name === 'add_hook') limit(currentDescribeBlock.hooks.at(-1), event.timeout)
})

function limit(added, ms = USUAL_MS) {
  const { fn } = added
  added.fn = async () => {
    let timer
    const late = new Promise((_, reject) => {
      timer = setTimeout(() => reject(new Error(`Not done within ${ms / 1000} s.`)), ms)
    })
    try {
      await Promise.race([fn(), late])
    } finally {
      clearTimeout(timer)
    }
  }
}
