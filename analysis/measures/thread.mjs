// A worker thread: this loads its program, which is TypeScript.
import { load } from '../../scripts/typescript.mjs'

await load(new URL('./worker.ts', import.meta.url))
