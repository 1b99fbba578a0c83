// A worker thread does not inherit the loader of TypeScript; this loads it, then the thread's program.
import { register } from 'tsx/esm/api'

register()
await import('./worker.ts')
