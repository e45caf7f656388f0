/** The screens on which a site is kept: little code of their own, which comes together. */
export { GulliesScreen } from '../gullies/gullies-screen.tsx'
export { HelpScreen } from '../help/help-screen.tsx'
export { NavigationScreen } from '../pages/navigation-screen.tsx'
export { BinScreen } from './bin-screen.tsx'
export { SettingsScreen } from './settings-screen.tsx'
export { SitesScreen } from './sites-screen.tsx'
