import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

// Built into the service's wwwroot, which serves it. In development, the pages come from Vite and the data from a running service.
export default defineConfig({
  plugins: [react()],
  build: { outDir: '../src/Nailcrow.Service/wwwroot', emptyOutDir: true, target: 'es2022', reportCompressedSize: false },
  server: { proxy: { '/api': 'http://127.0.0.1:7420' } },
  test: { environment: 'jsdom', setupFiles: ['src/shared/testSetup.ts'], css: false },
})
