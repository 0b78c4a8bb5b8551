import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import Components from 'unplugin-vue-components/vite'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import { defineConfig } from 'vitest/config'

export default defineConfig(({ command }) => ({
  base: command === 'build' ? '/static/' : '/',
  plugins: [
    vue(),
    Components({ resolvers: [ElementPlusResolver()], dirs: [], dts: 'components.d.ts' }),
  ],
  resolve: {
    alias: {
      '@': fileURLToPath(new URL('./src', import.meta.url)),
      '@words': fileURLToPath(new URL('../stileblade/words', import.meta.url)),
    },
  },
  // of the library for languages, what is not used stays out
  define: { __VUE_I18N_FULL_INSTALL__: false, __VUE_I18N_LEGACY_API__: false, __INTLIFY_PROD_DEVTOOLS__: false, __INTLIFY_DROP_MESSAGE_COMPILER__: false },
  build: { target: 'es2022', chunkSizeWarningLimit: 900, assetsInlineLimit: 0 },
  server: {
    fs: { allow: ['..'] },
    proxy: { '/api': { target: 'http://127.0.0.1:8123', changeOrigin: false } },
  },
  test: {
    environment: 'jsdom',
    setupFiles: ['src/shared/words/testing.ts'],
    include: ['src/**/*.test.ts'],
    server: { deps: { inline: [/element-plus/] } },
  },
}))
