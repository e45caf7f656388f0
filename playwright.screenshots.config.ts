import type { PlaywrightTestConfig } from '@playwright/test'
import base from './playwright.config.ts'

/** Takes the pictures of docs/screenshots: `npm run screenshots`. */
const config: PlaywrightTestConfig = { ...base, testMatch: '*.pictures.ts' }
export default config
