import { backup } from './en/codes/backup.ts'
import { cli } from './en/codes/cli.ts'
import { simulators } from './en/codes/simulators.ts'
import { start } from './en/codes/start.ts'

/** What only programs say, at a terminal or in a page of a simulator. The interface is built without it. */
export const programs = { backup, cli, simulators, start }
