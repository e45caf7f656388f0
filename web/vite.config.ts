import { fileURLToPath } from 'node:url'
import optimizeLocales from '@react-aria/optimize-locales-plugin'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'

const server = `http://127.0.0.1:${process.env.GULLYLINE_EDITOR_PORT ?? 4180}`

/** The fonts that every screen shows are fetched with its scripts, so that nothing is laid out again when they come. */
const preloadFonts: Plugin = {
  name: 'preload-fonts',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle = {} }) =>
      Object.keys(bundle)
        .filter((file) => /-latin-wght-normal-[^/]+\.woff2$/.test(file))
        .map((file) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', crossorigin: true, href: `/${file}` },
          injectTo: 'head',
        })),
  },
}

/**
 * What the editor opens with and parts of it that come later use, too. By itself the bundler makes a file of each set of
 * these that has the same users; in one file they are smaller.
 */
const EDITING = new RegExp(
  [
    'web/src/editor/canvas/(active-editor|box-select|boxes|focus-canvas|frame-geometry|frame-input|paste|shown-ids|shown-page)',
    'web/src/editor/commands/(acts|clipboard|command-list|select-acts)',
    'web/src/editor/session/(editor-state|editor-store|field-path|journal|node-name|typed-field)',
    'core/src/edits/(beside|compose|copy-look|lock|placing|undo)',
    'core/src/site/session-(page|parts)',
  ]
    .map((path) => `${path}\\.tsx?$`)
    .join('|'),
)

export default defineConfig({
  plugins: [
    react(),
    preloadFonts,
    // The words that React Aria brings are in English, as all others on the screen.
    optimizeLocales.vite({ locales: ['en-US'] }),
  ],
  // What reads Markdown runs in a worker, which has no document: the package's file for browsers asks one for entities.
  resolve: {
    alias: {
      'decode-named-character-reference': fileURLToPath(
        import.meta.resolve('decode-named-character-reference'),
      ),
    },
  },
  worker: { format: 'es' },
  // The server takes writes only from its own address, so the proxy speaks as it.
  server: {
    host: '127.0.0.1',
    proxy: Object.fromEntries(
      ['/api', '/media', '/files', '/fonts'].map((path) => [
        path,
        { target: server, changeOrigin: true, headers: { origin: server } },
      ]),
    ),
  },
  // Nothing is inlined as a data address: the content security policy takes files only.
  build: {
    target: 'es2022',
    manifest: true,
    chunkSizeWarningLimit: 1200,
    assetsInlineLimit: 0,
    rolldownOptions: { output: { codeSplitting: { groups: [{ name: 'editing', test: EDITING }] } } },
  },
})
