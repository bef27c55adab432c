import vue from '@vitejs/plugin-vue'
import { BootstrapVueNextResolver } from 'bootstrap-vue-next/resolvers'
import Icons from 'unplugin-icons/vite'
import Components from 'unplugin-vue-components/vite'
import { defineConfig, type Plugin } from 'vite'

/** While developing, as the server does it: a rider's phone has a page of its own. */
const padPage: Plugin = {
  name: 'pad-page',
  configureServer: ({ middlewares }) =>
    void middlewares.use((request, _response, next) => {
      if (request.url?.startsWith('/pad/')) request.url = '/pad.html'
      next()
    }),
}

export default defineConfig({
  plugins: [
    vue(),
    // Only BootstrapVueNext is resolved by name; our own components are imported where they are used.
    Components({ dirs: [], resolvers: [BootstrapVueNextResolver()], dts: false }),
    Icons({ compiler: 'vue3' }),
    padPage,
  ],
  publicDir: 'web/public',
  worker: { format: 'es' },
  build: {
    outDir: 'dist/web',
    emptyOutDir: true,
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      output: {
        // Few files that come at once, not fifty that queue: what the entry needs is one, what pages share is merged.
        codeSplitting: {
          groups: [
            { name: 'base', tags: ['$initial'] },
            // A screen without charts must never wait for them: a higher threshold below merges theirs into others.
            {
              name: 'charts',
              // With what draws them: small pieces that a screen without charts shares are merged into such a one else.
              test: /node_modules[\\/](echarts|zrender)|[\\/](MirrorTrace\.vue|LineFigure\.vue|mirrorOption\.ts)/,
            },
            // Small pieces of half the screens, with the parts of forms they build on, come in one file, not in twenty.
            {
              name: 'common',
              minShareCount: 4,
              maxModuleSize: 12_000,
              test: /[\\/](web|core|contract)[\\/]|~icons/,
            },
            { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 3_000 },
          ],
        },
      },
    },
  },
  css: {
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
      },
    },
  },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:4870', changeOrigin: true } } },
})
