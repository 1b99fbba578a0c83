import { useCallback, useMemo } from 'react'
import { useSearchParams } from 'react-router'

/** From one instant to another, ms of UTC. */
export interface Range {
  from: number
  to: number
}

/** What is selected on the Bench. It is part of the address, so that a reload and the back button keep it. */
export interface Selection {
  clip: string | null
  detection: string | null
  /** Index of the selected ignore area. */
  area: number | null
  target: number | null
  /** Frame of the moment asked about. */
  frame: number | null
  /** What the camera shows now is on the Bench, in place of a clip. */
  live: boolean
  /** The days of the camera are on the Bench, in place of a clip. */
  back: boolean
  /** The range of them that is looked at. */
  range: Range | null
}

const whole = (text: string | null): number | null =>
  text !== null && /^\d{1,9}$/.test(text) ? Number(text) : null

const rangeOf = (text: string | null): Range | null => {
  const match = /^(\d{12,14})-(\d{12,14})$/.exec(text ?? '')
  return match && Number(match[2]) > Number(match[1])
    ? { from: Number(match[1]), to: Number(match[2]) }
    : null
}

export function useSelection(): [Selection, (change: Partial<Selection>) => void] {
  const [params, setParams] = useSearchParams()
  const selection = useMemo(
    () => ({
      clip: params.get('clip'),
      detection: params.get('detection'),
      area: whole(params.get('area')),
      target: whole(params.get('target')),
      frame: whole(params.get('frame')),
      live: params.has('live'),
      back: params.has('back') && !params.has('live'),
      range: rangeOf(params.get('range'))
    }),
    [params]
  )
  const change = useCallback(
    (part: Partial<Selection>) =>
      setParams(
        (old) => {
          const next = new URLSearchParams(old)
          for (const [key, value] of Object.entries(part)) {
            if (value === null || value === undefined || value === false) next.delete(key)
            else if (typeof value === 'object') next.set(key, `${value.from}-${value.to}`)
            else next.set(key, String(value))
          }
          return next
        },
        { replace: true }
      ),
    [setParams]
  )
  return [selection, change]
}
