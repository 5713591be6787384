import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [
    vue(),
    // Element Plus by the piece, with its style sheets; our own parts are imported by name.
    components({ dirs: [], dts: 'components.d.ts', resolvers: [ElementPlusResolver({ importStyle: 'css' })] }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: {
    target: 'es2022',
    rollupOptions: { input: { index: 'index.html', trust: 'trust.html' } },
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    reportCompressedSize: false,
  },
  test: { environment: 'happy-dom', environmentOptions: { happyDOM: { url: 'http://here/' } }, include: ['src/**/*.test.ts'] },
  server: { proxy: { '/api': 'http://127.0.0.1:8475' } },
})
