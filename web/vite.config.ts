import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900, assetsInlineLimit: 0 },
  worker: { format: 'es' },
  server: {
    port: 4871,
    headers: {
      'Cross-Origin-Opener-Policy': 'same-origin',
      'Cross-Origin-Embedder-Policy': 'require-corp',
    },
    proxy: {
      '/api': {
        target: 'http://127.0.0.1:4870',
        changeOrigin: true,
        headers: { origin: 'http://127.0.0.1:4870' },
      },
    },
  },
})
