// The thread that writes the pages of a record: this loads its program, which is TypeScript.
import { load } from '../../scripts/typescript.mjs'

await load(new URL('./pagesThread.ts', import.meta.url))
