import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

export default defineConfig({
  plugins: [
    react(),
    VitePWA({
      // The page itself decides when another release takes over: once the server has all that waits here.
      registerType: 'prompt',
      injectRegister: null,
      manifest: {
        name: 'Decurio',
        short_name: 'Decurio',
        description: 'Works out, keys in, reads back and seals the configuration of e-bikes and e-scooters.',
        start_url: '/line',
        display: 'standalone',
        background_color: '#eeece4',
        theme_color: '#18211D',
        icons: [
          { src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: '/mark-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/mark-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/mark-512-round.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
      includeAssets: [],
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff2}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//, /^\/metrics$/],
        dontCacheBustURLsMatching: /\/assets\//,
        clientsClaim: true,
        cleanupOutdatedCaches: true,
        inlineWorkboxRuntime: true,
        sourcemap: false,
      },
    }),
  ],
  resolve: { conditions: ['decurio-source', 'module', 'browser', 'development|production'] },
  build: { outDir: 'dist/app', emptyOutDir: true, manifest: true, target: 'es2022', chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': process.env['DECURIO_API'] ?? 'http://127.0.0.1:8080' } },
});
