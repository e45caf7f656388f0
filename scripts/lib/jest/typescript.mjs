/** Loaded into each Node that runs tests without a world of their own: it reads TypeScript, and finds Jest's functions. */
import { register } from 'node:module'
import 'tsx'

register('./resolve-globals.mjs', import.meta.url)
