// Modules of the interface that are tested alone, each as a file that a page can import.

import { defineConfig } from 'vite'

export default defineConfig({
  build: {
    target: 'es2022',
    outDir: '../.setup/units',
    emptyOutDir: true,
    lib: {
      entry: {
        editQueue: 'src/stores/editQueue.ts',
        lanes: 'src/composables/lanes.ts',
        latest: 'src/composables/latest.ts',
        numbers: 'src/composables/numbers.ts',
      },
      formats: ['es'],
    },
  },
  publicDir: false,
  define: { 'process.env.NODE_ENV': '"production"' },
})
