// The thread in which cameras' targets are followed: this loads its program, which is TypeScript.
import { load } from '../../scripts/typescript.mjs'

await load(new URL('./followThread.ts', import.meta.url))
