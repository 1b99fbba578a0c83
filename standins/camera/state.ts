import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import type { Rule } from '../../core/formats/onvif/rules.ts'

export interface Account {
  username: string
  password: string
}

/** What a device keeps over a restart. */
export interface DeviceState {
  accounts: Account[]
  rules: Rule[]
}

/** A device's settings in a file, written whole or not at all. */
export class StateFile {
  readonly state: DeviceState
  private readonly file: string

  constructor(file: string, initial: DeviceState) {
    this.file = file
    this.state = existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as DeviceState) : initial
  }

  save(): void {
    mkdirSync(dirname(this.file), { recursive: true })
    writeFileSync(`${this.file}.part`, JSON.stringify(this.state))
    renameSync(`${this.file}.part`, this.file)
  }
}
