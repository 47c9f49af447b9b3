import vue from '@vitejs/plugin-vue'
import vuetify from 'vite-plugin-vuetify'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  build: { chunkSizeWarningLimit: 1500 },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8420', ws: true } } },
  test: { environment: 'jsdom' },
})
