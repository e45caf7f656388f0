export { examplePackage } from './example-package.ts'
export type { DemoPage, DemoPart } from './page-parts.ts'
export { demoSite } from './site.ts'
