import { atSite } from '../../api/here.ts'
import type { Said as SaidByCode } from '../../../core/messages/said.ts'
import { saidOfField } from '../../../core/messages/errorWords.ts'
import { useEffect, useMemo, useState } from 'react'
import type { LiveFrame } from '../../../core/devices/views.ts'
import { useLive as msg } from '../../../core/messages/en/bench/live.ts'

/** Something that the camera's device said while it was looked at. */
export interface Heard {
  key: number
  topic: string
  rule: string
  data: Record<string, string>
  /** When it arrived here. */
  at: number
}

/** The newest targets, for who draws them: ten times a second, of which the rest of the Bench need not know. */
export class LiveFrames {
  private frame: LiveFrame | null = null
  private readonly listeners = new Set<() => void>()

  get = (): LiveFrame | null => this.frame

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  set(frame: LiveFrame | null): void {
    this.frame = frame
    for (const listener of this.listeners) listener()
  }
}

interface Told {
  /** Newest first. */
  heard: readonly Heard[]
  trouble: string | null
}

const KEPT = 50
const nothing: Told = { heard: [], trouble: null }

export interface Live extends Told {
  frames: LiveFrames
}

/** Targets and triggers of a camera as they come; null: nobody looks. */
export function useLive(camera: string | null): Live {
  const frames = useMemo(() => new LiveFrames(), [])
  const [said, setSaid] = useState<Told>(nothing)
  useEffect(() => {
    if (camera === null) return
    let count = 0
    const source = new EventSource(atSite(`/cameras/${encodeURIComponent(camera)}/live`))
    const read = <T>(event: Event): T => JSON.parse((event as MessageEvent<string>).data) as T
    const fail = (trouble: string): void => {
      frames.set(null)
      setSaid((old) => ({ ...old, trouble }))
    }
    source.addEventListener('targets', (event) => {
      frames.set(read<LiveFrame>(event))
      setSaid((old) => (old.trouble === null ? old : { ...old, trouble: null }))
    })
    source.addEventListener('heard', (event) => {
      const heard = read<Omit<Heard, 'key' | 'at'>>(event)
      setSaid((old) => ({
        ...old,
        heard: [{ ...heard, key: count++, at: Date.now() }, ...old.heard].slice(0, KEPT)
      }))
    })
    source.addEventListener('trouble', (event) =>
      fail(saidOfField(read<{ why: SaidByCode | string }>(event).why))
    )
    // The browser tries again by itself, unless the server has refused.
    source.onerror = () =>
      fail(source.readyState === EventSource.CLOSED ? msg.noDevice : msg.theCameraDoesNot)
    return () => {
      source.close()
      frames.set(null)
      setSaid(nothing)
    }
  }, [camera, frames])
  return { ...said, frames }
}
