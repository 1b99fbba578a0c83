// The thread that answers from what cameras have reported: this loads its program, which is TypeScript.
import { load } from '../../scripts/typescript.mjs'

await load(new URL('./jobThread.ts', import.meta.url))
