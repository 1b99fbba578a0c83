import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import type { Simulators } from '../simulators.ts'

const root = fileURLToPath(new URL('../..', import.meta.url))

/** Simulators as a process of this start. */
export interface RunningSimulators extends Simulators {
  discoveryPort: number
  /** Addresses of the simulated cameras, by the ids of demo/devices.json. */
  devices: Record<string, string>
  stop(): Promise<void>
}

/** Starts the simulators as a process of their own, on loopback; they end with this one. */
export async function startSimulators(folder: string): Promise<RunningSimulators> {
  const child = spawn(
    process.execPath,
    [join(root, 'scripts/run.mjs'), 'simulators/main.ts', folder],
    { stdio: ['pipe', 'pipe', 'inherit'] }
  )
  const line = await Promise.race([
    once(createInterface(child.stdout), 'line').then(([text]) => text as string),
    once(child, 'exit').then(([code]) => {
      throw new Error(`the simulators ended with code ${String(code)}`)
    })
  ])
  return {
    ...(JSON.parse(line) as Omit<RunningSimulators, 'stop'>),
    stop: async () => {
      if (child.exitCode !== null) return
      const ended = once(child, 'exit')
      child.kill('SIGTERM')
      await ended
    }
  }
}
