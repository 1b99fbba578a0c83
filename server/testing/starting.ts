import { spawn, type ChildProcess } from 'node:child_process'

export interface Started {
  child: ChildProcess
  address: string
  output: () => string
}

/**
 * Starts Wardoptic as a terminal would, in a process group of its own, and waits for its address: as long as the test
 * lasts, as a first start may have the interface to build beside everything else that runs.
 * @param children where the process is put, so that a test that fails can still end it
 * @throws what it said, when it ends before
 */
export function startProgram(children: ChildProcess[], ...args: string[]): Promise<Started> {
  const child = spawn(process.execPath, ['scripts/start.mjs', ...args], {
    detached: true,
    stdio: ['ignore', 'pipe', 'pipe']
  })
  children.push(child)
  let text = ''
  return new Promise((resolve, reject) => {
    const heard = (part: Buffer): void => {
      text += part.toString()
      const [, address] = /Wardoptic is at\s+(https?:\/\/\S+)/.exec(text) ?? []
      if (address && text.endsWith('\n')) resolve({ child, address, output: () => text })
    }
    child.stdout.on('data', heard)
    child.stderr.on('data', heard)
    child.on('exit', (code) => reject(new Error(`ended with ${code}: ${text}`)))
  })
}
