import { said } from '../core/messages/said.ts'
import { statfs } from 'node:fs/promises'
import { noSpace } from './errors.ts'

/** So much stays free for the database and for what alarms leave. */
export const RESERVE_BYTES = 200 * 2 ** 20

/** Bytes that are free for this program on the disk of a folder. */
export async function freeBytes(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder)
  return bavail * bsize
}

/**
 * Asked before something large is written.
 *
 * @param bytes how large it will be, as far as that is known
 * @throws ApiError (507) when it would leave too little
 */
export async function requireSpace(folder: string, bytes = 0): Promise<void> {
  const free = await freeBytes(folder)
  if (free - bytes < RESERVE_BYTES)
    throw noSpace(
      said(
        'server.theDiskIsNearlyFull',
        Math.floor(free / 2 ** 20),
        RESERVE_BYTES / 2 ** 20,
        bytes,
        Math.ceil(bytes / 2 ** 20)
      )
    )
}
