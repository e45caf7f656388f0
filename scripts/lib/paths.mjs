import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The folder of the checkout. */
export const root = join(dirname(fileURLToPath(import.meta.url)), '../..')

export const MARIADB = {
  '/usr/sbin/mariadbd': 'mariadb-server',
  '/usr/bin/mariadb-install-db': 'mariadb-server',
}
/** Without windows, menus and tabs, which tests have no use for and which take a third of their time. */
export const CHROMIUM = { '/usr/bin/chromium-headless-shell': 'chromium-headless-shell' }
/** A server of somebody else's, that what we export is tried with. */
export const NGINX = { '/usr/sbin/nginx': 'nginx-light' }

/** Safari's family of browsers, and a screen for it. */
export const WEBKIT = { '/usr/bin/WebKitWebDriver': 'webkit2gtk-driver', '/usr/bin/Xvfb': 'xvfb' }

/** A program of a package, run by this Node. */
export function tool(path) {
  return join(root, 'node_modules', path)
}
