import vue from '@vitejs/plugin-vue'
import vuetify from 'vite-plugin-vuetify'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  build: { chunkSizeWarningLimit: 1500 },
  // The server takes changes from its own page only: the development server asks in its place, without an origin.
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8420', ws: true, headers: { origin: 'http://127.0.0.1:8420', 'sec-fetch-site': 'same-origin' }, changeOrigin: true } } },
  test: { environment: 'jsdom' },
})
