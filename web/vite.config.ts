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

/** `import()` in the built editor goes through a function of ours, which has the place and the name of the bundler's own. */
const importFetched: Plugin = {
  name: 'import-fetched',
  apply: 'build',
  transform: {
    filter: { id: /^\0vite\/preload-helper\.js$/ },
    handler: () => {
      const ours = fileURLToPath(new URL('./src/ui/import-fetched.ts', import.meta.url))
      return { code: `export { importFetched as __vitePreload } from ${JSON.stringify(ours)}`, map: null }
    },
  },
}

/** What the editor takes as soon as a page stands on the screen. What tests keep from coming has a file of its own. */
const SOON = new RegExp(
  [
    'canvas/grid-canvas',
    'chrome/top-bar-parts',
    'commands/(selection-menu|shared-acts|turning-acts)',
    'details/(details|items|template-acts|variant-field)',
    'line-up/line-up',
    'problems/run-findings',
    'session/(merge-in|saver)',
  ]
    .map((path) => `web/src/editor/${path}\\.tsx?$`)
    .join('|'),
)

/**
 * The bundler by itself makes a file of each set of modules with the same users: eighty files for a page that is opened, most
 * of them smaller than the headers of a request. Here a file has what every screen begins with, and another has what a page
 * opens with.
 */
const groups = [
  { name: 'index', tags: ['$initial' as const] },
  // The server names it in a page by this name: `OPENS_WITH` in server/src/api/editor-page.ts.
  { name: 'editing', test: /editor\/chrome\/editor-screen\.tsx$/ },
  // Modules with the same users in one file, and those that would make a small one with others of nearly the same users.
  // Larger ones were tried: they made a file begin before one that it needs, so that half of the screen stayed empty.
  { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 30_000 },
  { name: 'soon', test: SOON },
]

export default defineConfig({
  plugins: [
    react(),
    preloadFonts,
    importFetched,
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
    rolldownOptions: {
      output: {
        codeSplitting: { groups },
        // The bundler names a shared file after all its users.
        chunkFileNames: ({ name }) => `assets/${name.split('~', 1)[0]}-[hash].js`,
      },
    },
  },
})
