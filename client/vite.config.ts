import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import tailwind from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'

/** What a device has kept of the answers of another version may have another shape. */
const answerShape = createHash('sha256').update(readFileSync('src/api/schema.d.ts')).digest('hex').slice(0, 12)

export default defineConfig({
  define: { ANSWER_SHAPE: JSON.stringify(answerShape) },
  plugins: [
    react(),
    tailwind(),
    VitePWA({
      // A page that is open keeps the files it was made with; the next visit has the new ones.
      registerType: 'prompt',
      injectRegister: null,
      filename: 'kept.js',
      manifest: {
        name: 'Zeitplan',
        short_name: 'Zeitplan',
        description: 'Lessons of a tai chi school: planned, led and looked back on.',
        start_url: '/',
        display: 'standalone',
        background_color: '#F3F0E8',
        theme_color: '#F3F0E8',
        icons: [
          { src: 'sole.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: 'sole-192.png', sizes: '192x192', type: 'image/png' },
          { src: 'sole-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
        ],
      },
      workbox: {
        inlineWorkboxRuntime: true,
        cleanupOutdatedCaches: true,
        maximumFileSizeToCacheInBytes: 6_000_000,
        globPatterns: ['**/*.{js,css,svg,png,woff2,html,wasm,json,dat}'],
        // The page as the server sends it, with the nonce its policy asks for.
        manifestTransforms: [
          (entries) => ({
            manifest: entries.map((entry) => (entry.url === 'index.html' ? { ...entry, url: '/' } : entry)),
            warnings: [],
          }),
        ],
        navigateFallback: null,
        runtimeCaching: [
          {
            urlPattern: ({ request, url }) => request.mode === 'navigate' && !url.pathname.startsWith('/api/'),
            handler: 'NetworkOnly',
            options: { precacheFallback: { fallbackURL: '/' } },
          },
        ],
      },
    }),
  ],
  // The page's security policy allows no data: addresses, so nothing is inlined.
  build: { outDir: '../server/wwwroot', emptyOutDir: true, assetsInlineLimit: 0 },
  test: {
    environment: 'happy-dom',
    setupFiles: './vitest.setup.ts',
    restoreMocks: true,
    // One page for all files: reading every module anew for each takes as long as the tests. What a test leaves behind, vitest.setup.ts takes away.
    isolate: false,
    // Generous, for small and busy machines; nothing here measures time.
    testTimeout: 60_000,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:5080' } },
})
