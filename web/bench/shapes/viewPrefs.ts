import { useMemo, useState } from 'react'
import { keep, kept as keptText } from '../../kept.ts'
import { useStable } from '../../stable.ts'

/**
 * What of a camera's detections somebody wants not to see, or not to change by mistake. Of this
 * browser, not of the plan.
 */
export interface ViewPrefs {
  hidden: ReadonlySet<string>
  locked: ReadonlySet<string>
  toggle: (what: 'hidden' | 'locked', id: string) => void
}

interface Kept {
  hidden: string[]
  locked: string[]
}

function read(key: string): Kept {
  try {
    const { hidden = [], locked = [] } = JSON.parse(keptText(key) ?? '{}') as Partial<Kept>
    return { hidden, locked }
  } catch {
    return { hidden: [], locked: [] }
  }
}

export function useViewPrefs(camera: string): ViewPrefs {
  const key = `wardoptic.view.${camera}`
  const [kept, setKept] = useState(() => read(key))
  const toggle = useStable((what: keyof Kept, id: string): void => {
    const next = {
      ...kept,
      [what]: kept[what].includes(id)
        ? kept[what].filter((other) => other !== id)
        : [...kept[what], id]
    }
    setKept(next)
    keep(key, JSON.stringify(next))
  })
  return useMemo(
    () => ({ hidden: new Set(kept.hidden), locked: new Set(kept.locked), toggle }),
    [kept, toggle]
  )
}
