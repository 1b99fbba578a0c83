import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  root: new URL('web', import.meta.url).pathname,
  plugins: [react()],
  worker: { format: 'es' },
  // The server puts a new nonce in its place at each answer (server/api/page.ts); nothing is
  // inlined that its policy would refuse.
  html: { cspNonce: '__CSP_NONCE__' },
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1500,
    assetsInlineLimit: 0
  }
})
