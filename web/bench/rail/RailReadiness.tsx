import { memo, type ReactNode } from 'react'
import type { Mend } from '../../../core/readiness/index.ts'
import { Findings } from '../../readiness/Findings.tsx'
import { ReadinessStrip } from '../../readiness/ReadinessStrip.tsx'
import { useReadiness } from '../../readiness/useReadiness.ts'
import type { BenchDocument } from '../document.ts'

/** How far this camera is, and what was found; of the chosen detection alone, where one is chosen. */
export const RailReadiness = memo(function RailReadiness({
  camera,
  selected,
  document
}: {
  camera: string
  selected: string | null
  document: BenchDocument
}): ReactNode {
  const { data } = useReadiness()
  const own = data?.cameras.find(({ id }) => id === camera)
  if (!data || !own) return null
  const findings = data.findings.filter(
    (f) =>
      f.camera === camera && (selected === null || f.detection === null || f.detection === selected)
  )
  // What changes the plan is one step of the document, which undo takes back; commands to devices go to the server.
  const mendHere = (mend: Mend): boolean => {
    if (mend.does === 'edit' && document.detection(mend.detection.id))
      document.edit(mend.detection, mend.words)
    else if (mend.does === 'actions' && document.detection(mend.detection))
      document.setActions(mend.detection, mend.actions, mend.words)
    else if (mend.does === 'add') document.add([mend.detection])
    else return false
    return true
  }
  return (
    <section className="rail-readiness" aria-label="Readiness">
      <ReadinessStrip notches={own.notches} />
      <Findings findings={findings} mendHere={mendHere} />
    </section>
  )
})
