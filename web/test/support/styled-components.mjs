/**
 * styled-components as a bundler gives it. Jest takes its CommonJS build, whose whole module would be the default
 * export (Node.js, "Interoperability with CommonJS").
 */
import all from 'styled-components/dist/styled-components.browser.cjs.js'

export const { createGlobalStyle, css } = all
export default all.default
