import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** The installer's cookie, for the browser and for requests of tests. */
export const SIGNED_IN = join(tmpdir(), `wardoptic-signed-in-${process.env.E2E_PORT ?? 4790}.json`)
