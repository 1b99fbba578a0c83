// The thread in which cameras’ pictures are analysed: this loads its program, which is TypeScript.
import { load } from '../../scripts/typescript.mjs'

await load(new URL('./streamThread.ts', import.meta.url))
