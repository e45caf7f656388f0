import base from './playwright.config.ts'
export default { ...base, timeout: 120_000, use: { ...base.use, actionTimeout: 8_000 }, expect: { timeout: 12_000 }, reporter: [['line']] as const }
