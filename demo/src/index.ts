export { examplePackage } from './example-package.ts'
export type { DemoPage } from './page-parts.ts'
export { demoSite } from './site.ts'
