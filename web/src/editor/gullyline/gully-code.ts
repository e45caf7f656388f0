/** What measures pages, and shows what was found. */
export { MeasuredRuler } from './measured-ruler.tsx'
export { Sweeper } from './sweeper.ts'
