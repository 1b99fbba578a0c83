import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import type { SavedOutput } from './outputs.ts'
import type { Rule } from '../../core/formats/onvif/rule.ts'

export interface Account {
  username: string
  password: string
}

export interface ChannelState {
  rules: Rule[]
  /** The family of analysis that runs; null: none. */
  mode: string | null
}

/** What a device keeps over a restart. */
export interface DeviceState {
  accounts: Account[]
  channels: Record<string, ChannelState>
  /** How outputs are set up, by token. */
  outputs: Record<string, SavedOutput>
  /** How its clock was set; null: as it came. */
  clock: { off: number; ntp: string | null; zone: string | null } | null
  /** `IrCutFilter` of each picture that somebody has set. */
  filters: Record<string, string>
  /** Where each channel was told that it looks. */
  surroundings: Record<string, string>
  /** Channels whose metadata leave out what the analysis sees. */
  silent: string[]
}

/** A device's settings in a file, written whole or not at all. */
export class StateFile {
  readonly state: DeviceState
  private readonly file: string

  constructor(file: string, initial: DeviceState) {
    this.file = file
    const kept = existsSync(file)
      ? (JSON.parse(readFileSync(file, 'utf8')) as Partial<DeviceState>)
      : {}
    this.state = {
      accounts: kept.accounts ?? initial.accounts,
      channels: { ...initial.channels, ...kept.channels },
      outputs: { ...initial.outputs, ...kept.outputs },
      clock: kept.clock ?? initial.clock,
      filters: { ...initial.filters, ...kept.filters },
      surroundings: { ...initial.surroundings, ...kept.surroundings },
      silent: kept.silent ?? initial.silent
    }
  }

  save(): void {
    mkdirSync(dirname(this.file), { recursive: true })
    writeFileSync(`${this.file}.part`, JSON.stringify(this.state))
    renameSync(`${this.file}.part`, this.file)
  }
}
