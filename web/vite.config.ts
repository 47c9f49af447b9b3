import { readFileSync } from 'node:fs'
import vue from '@vitejs/plugin-vue'
import vuetify from 'vite-plugin-vuetify'
import { defineConfig } from 'vitest/config'

/** The licence of each font, beside the files of the font. */
const fontLicences = {
  name: 'font-licences',
  generateBundle(this: { emitFile: (file: { type: 'asset'; fileName: string; source: string }) => void }) {
    for (const font of ['atkinson-hyperlegible-mono', 'atkinson-hyperlegible-next']) {
      this.emitFile({ type: 'asset', fileName: `assets/${font}-LICENSE.txt`, source: readFileSync(`node_modules/@fontsource-variable/${font}/LICENSE`, 'utf8') })
    }
  },
}

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), fontLicences],
  build: { chunkSizeWarningLimit: 1500, license: { fileName: 'licences/page.txt' } },
  // The server takes changes from its own page only: the development server asks in its place, without an origin.
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8420', ws: true, headers: { origin: 'http://127.0.0.1:8420', 'sec-fetch-site': 'same-origin' }, changeOrigin: true } } },
  test: { environment: 'jsdom', server: { deps: { inline: ['vuetify'] } } },
})
