// The thread that simulates the demo site's past: this loads its program, which is TypeScript.
import { load } from '../../scripts/typescript.mjs'

await load(new URL('./pastThread.ts', import.meta.url))
