import type { DeviceView } from '../../core/devices/views.ts'

/** What a part of the sheet asks of the server; its trouble is shown at the top. */
export type Act = (what: string, work: () => Promise<unknown>) => Promise<void>

/** What each part of the sheet is given. */
export interface PartProps {
  device: DeviceView
  act: Act
  /** What is being asked for just now; null: nothing. */
  working: string | null
}
