import { railReadiness as msg } from '../../../core/messages/en/bench/rail.ts'
import './rail.css'
import { memo, type ReactNode } from 'react'
import type { QuickFix } from '../../../core/readiness/index.ts'
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
  const fixHere = (fix: QuickFix): boolean => {
    if (fix.does === 'edit' && document.detection(fix.detection.id))
      document.edit(fix.detection, fix.words)
    else if (fix.does === 'actions' && document.detection(fix.detection))
      document.setActions(fix.detection, fix.actions, fix.words)
    else if (fix.does === 'add') document.add([fix.detection])
    else return false
    return true
  }
  return (
    <section className="rail-readiness" aria-label={msg.readiness}>
      <ReadinessStrip steps={own.steps} />
      <Findings findings={findings} fixHere={fixHere} />
    </section>
  )
})
