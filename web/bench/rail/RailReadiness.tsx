import { railReadiness as msg } from '../../../core/messages/en/bench/rail.ts'
import './rail.css'
import { DownOutlined, RightOutlined } from '@ant-design/icons'
import { memo, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { QuickFix, ReadinessSteps } from '../../../core/readiness/index.ts'
import { Findings } from '../../readiness/Findings.tsx'
import { ReadinessStrip } from '../../readiness/ReadinessStrip.tsx'
import { useReadiness } from '../../readiness/useReadiness.ts'
import { Rich } from '../../words/Rich.tsx'
import type { BenchDocument } from '../document.ts'

type Step = keyof ReadinessSteps

/** Where a step that nothing is missing for is looked at; on the Bench itself it is drawn. */
const PLACE: Readonly<Record<Exclude<Step, 'drawn'>, string>> = {
  armed: '/arming',
  linked: '/actions',
  sent: '/devices',
  proven: '/prove'
}

/**
 * How far this camera is: a step opens what is missing for it, one line opens all that was found; of the chosen
 * detection alone, where one is chosen. Closed, it takes no room from the detections.
 */
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
  const [open, setOpen] = useState<Step | 'all' | null>(null)
  const own = data?.cameras.find(({ id }) => id === camera)
  if (!data || !own) return null
  const findings = data.findings.filter(
    (f) =>
      f.camera === camera && (selected === null || f.detection === null || f.detection === selected)
  )
  const shown = open === 'all' ? findings : findings.filter(({ step }) => step === open)
  const toggle = (what: Step | 'all'): void => setOpen(open === what ? null : what)
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
  const blocking = findings.filter(({ severity }) => severity === 'blocking').length
  return (
    <section className="rail-readiness" aria-label={msg.readiness}>
      <ReadinessStrip
        steps={own.steps}
        onStep={toggle}
        chosen={open === null || open === 'all' ? null : open}
      />
      {findings.length > 0 && (
        <button
          type="button"
          className={blocking ? 'rail-issues blocking' : 'rail-issues'}
          aria-expanded={open === 'all'}
          onClick={() => toggle('all')}
        >
          {open === 'all' ? <DownOutlined aria-hidden /> : <RightOutlined aria-hidden />}{' '}
          {msg.issues(findings.length, blocking)}
        </button>
      )}
      {open !== null && <Findings findings={shown} fixHere={fixHere} />}
      {open !== null && open !== 'all' && shown.length === 0 && (
        <p className="quiet">
          {open === 'drawn' ? (
            msg.nothingMissing
          ) : (
            <Rich
              text={msg.nothingMissingSee}
              parts={{ place: <Link to={PLACE[open]}>{msg.places[open]}</Link> }}
            />
          )}
        </p>
      )}
    </section>
  )
})
