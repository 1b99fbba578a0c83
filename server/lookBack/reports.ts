import { readTracks } from '../../core/lookBack/tracksBytes.ts'
import type { Reports } from '../clips/reported.ts'
import type { LookBack } from './service.ts'

/** What is kept of cameras, for clips. @param picture what a camera shows now; null: nothing shows it */
export const reportsOf = (
  lookBack: LookBack,
  picture: (camera: string) => Promise<Buffer | null>
): Reports => ({
  picture,
  tracks: async (camera, { from, to }) => {
    const { bytes, heard } = await lookBack.ask({ type: 'tracks', camera, from, to })
    return heard.length ? readTracks(bytes) : null
  }
})
