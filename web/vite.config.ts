import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

const server = `http://127.0.0.1:${process.env.GULLYLINE_EDITOR_PORT ?? 4180}`

export default defineConfig({
  plugins: [react()],
  // The server takes writes only from its own address, so the proxy speaks as it.
  server: {
    host: '127.0.0.1',
    proxy: Object.fromEntries(
      ['/api', '/media', '/fonts'].map((path) => [
        path,
        { target: server, changeOrigin: true, headers: { origin: server } },
      ]),
    ),
  },
  // Nothing is inlined as a data address: the content security policy takes files only.
  build: { target: 'es2022', chunkSizeWarningLimit: 1200, assetsInlineLimit: 0 },
})
