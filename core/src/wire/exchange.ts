/** Packages as server and editor speak of them, as JSON. */
import type { ImportChoices, ImportPlan } from '../exchange/import-plan.ts'

/** A package that was sent, and what it would do. */
export interface WaitingImport {
  readonly id: string
  readonly plan: ImportPlan
}

/** How a package is to be imported. */
export interface ImportRequest {
  readonly choices: ImportChoices
  /** Names of colours in the package, and those of the look here that stand for them. */
  readonly surfaces: Readonly<Record<string, string>>
}

/** What was done. */
export interface Imported {
  readonly added: number
  readonly replaced: number
  /** Of these, what was here stays. */
  readonly kept: number
}

/** What a package that is exported holds. */
export interface ExportFacts {
  readonly parts: number
  readonly pages: number
  readonly media: number
  /** Of its pictures and files together. */
  readonly bytes: number
}
