// A process of its own: this loads its program, which is TypeScript.
import { load } from '../../scripts/typescript.mjs'

await load(new URL('./prover.ts', import.meta.url))
