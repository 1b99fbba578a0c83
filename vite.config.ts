import react from '@vitejs/plugin-react'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const fileOf = (path: string): string => fileURLToPath(new URL(path, import.meta.url))

const own = [fileOf('web/'), fileOf('core/')]
/** Whether a module is of this project. */
const isOwn = (id: string): boolean => own.some((folder) => id.startsWith(folder))

export default defineConfig({
  root: fileOf('web'),
  plugins: [react()],
  worker: { format: 'es' },
  // What only programs say stays out of the interface.
  resolve: {
    alias: [{ find: './programs.ts', replacement: fileOf('core/messages/noPrograms.ts') }]
  },
  // The server puts a new nonce in its place at each answer (server/api/page.ts); nothing is
  // inlined that its policy would refuse.
  html: { cspNonce: '__CSP_NONCE__' },
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1500,
    assetsInlineLimit: 0,
    // By it the server names the code that a first show of a place needs (server/api/page.ts).
    manifest: 'manifest.json',
    // What many places use is one file: as some fifty small ones, each with a head of 1 KB, a first show of any place
    // weighed a tenth more. What is large and used by some only stays out of it: the first page would pay for all.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'shared', minShareCount: 18 },
            { name: 'own', minShareCount: 6, test: isOwn }
          ]
        }
      }
    }
  }
})
