// A process of its own: this loads the loader of TypeScript, then the process's program.
import { register } from 'tsx/esm/api'

register()
await import('./prover.ts')
