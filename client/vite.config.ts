import tailwind from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react(), tailwind()],
  // The page's security policy allows no data: addresses, so nothing is inlined.
  build: { outDir: '../server/wwwroot', emptyOutDir: true, assetsInlineLimit: 0 },
  test: {
    environment: 'jsdom',
    setupFiles: './vitest.setup.ts',
    restoreMocks: true,
    // One page for all files: drawing jsdom and reading every module anew for each takes as long as the tests. What a test leaves behind, vitest.setup.ts takes away.
    isolate: false,
    // Generous, for small and busy machines; nothing here measures time.
    testTimeout: 60_000,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:5080' } },
})
