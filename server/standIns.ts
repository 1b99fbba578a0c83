/** A host of this name is the stand-in that ships: its address changes with each start. */
export const STAND_IN = 'stand-in'

/** Where the stand-ins are now; null: there are none. */
export interface StandInPorts {
  /** Takes mails. */
  smtp: number
  /** Takes the station's frames. */
  station: number
  /** Pages to see and operate them, and where webhooks go. */
  pages: number
  /** Reads the mailbox. */
  mailbox: number
}

/** The address that a host and port mean. @throws Error for a stand-in where there is none */
export function addressFor(
  host: string,
  port: number,
  standIns: StandInPorts | null,
  which: keyof StandInPorts
): { host: string; port: number } {
  if (host !== STAND_IN) return { host, port }
  if (!standIns) throw new Error('there is no stand-in on this machine')
  return { host: '127.0.0.1', port: standIns[which] }
}
