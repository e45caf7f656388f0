import type { PlaywrightTestConfig } from '@playwright/test'
import base from './playwright.config.ts'

/** What Safari's family does with the editor: `npm test -- --only webkit`. */
const config: PlaywrightTestConfig = { ...base, testMatch: '*.webkit.ts', workers: 1 }
export default config
