import { useEffect, useState } from 'react'
import type { LiveFrame } from '../../../core/devices/views.ts'

/** Something that the camera's device said while it was looked at. */
export interface Heard {
  key: number
  topic: string
  rule: string
  data: Record<string, string>
  /** When it arrived here. */
  at: number
}

export interface Live {
  frame: LiveFrame | null
  /** Newest first. */
  heard: readonly Heard[]
  trouble: string | null
}

const KEPT = 50
const nothing: Live = { frame: null, heard: [], trouble: null }

/** Targets and triggers of a camera as they come; null: nobody looks. */
export function useLive(camera: string | null): Live {
  const [live, setLive] = useState<Live>(nothing)
  useEffect(() => {
    if (camera === null) return
    let count = 0
    const source = new EventSource(`/api/cameras/${encodeURIComponent(camera)}/live`)
    const read = <T>(event: Event): T => JSON.parse((event as MessageEvent<string>).data) as T
    source.addEventListener('targets', (event) => setLive((old) => ({ ...old, trouble: null, frame: read<LiveFrame>(event) })))
    source.addEventListener('heard', (event) => {
      const said = read<Omit<Heard, 'key' | 'at'>>(event)
      setLive((old) => ({ ...old, heard: [{ ...said, key: count++, at: Date.now() }, ...old.heard].slice(0, KEPT) }))
    })
    source.addEventListener('trouble', (event) => setLive((old) => ({ ...old, frame: null, trouble: read<{ message: string }>(event).message })))
    // The browser tries again by itself, unless the server has refused.
    source.onerror = () => setLive((old) => ({ ...old, frame: null, trouble: source.readyState === EventSource.CLOSED ? 'No device shows this camera now; its state is under Devices.' : 'The camera is out of reach; trying again …' }))
    return () => {
      source.close()
      setLive(nothing)
    }
  }, [camera])
  return live
}
