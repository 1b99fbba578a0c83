import { Button, Input, InputNumber, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { SaveEmailSchema } from '../../../core/api.ts'
import { DetectionSchema, parseWith, type Detection, type Schedule } from '../../../core/formats/plan.ts'
import { CLASSES } from '../../../core/targets/classes.ts'
import type { BenchDocument } from '../document.ts'

const ALWAYS = ''

/** Changes of several detections at once, each change one step. Kinds that have no such setting are left as they are. */
export function BulkPanel({ document, marked, schedules, onAll, onDone }: { document: BenchDocument; marked: readonly Detection[]; schedules: readonly Schedule[]; onAll: () => void; onDone: () => void }): ReactNode {
  const [sensitivity, setSensitivity] = useState<number | null>(50)
  const [to, setTo] = useState('')
  const [error, setError] = useState<string | null>(null)
  const count = `${marked.length} ${marked.length === 1 ? 'detection' : 'detections'}`
  const none = marked.length === 0
  const change = (part: (d: Detection) => Partial<Detection> | null, label: string): void =>
    document.editAll(
      marked.flatMap((d) => {
        const changed = part(d)
        return changed ? [{ id: d.id, detection: parseWith(DetectionSchema, { ...d, ...changed }) }] : []
      }),
      `${label} of ${count}`
    )
  const link = (): void => {
    try {
      const { to: recipient } = parseWith(SaveEmailSchema, { version: 0, to: to.trim() || null })
      document.setEmails(marked.map(({ id }) => id), recipient)
      setError(null)
    } catch (problem) {
      setError((problem as Error).message.replace(/^\$\.to: /, ''))
    }
  }
  return (
    <section className="bulk" aria-label="Several at once">
      <header className="row">
        <h3>{none ? 'Mark detections above' : `For ${count}`}</h3>
        <Button size="small" type="link" onClick={onAll}>
          All
        </Button>
      </header>
      <div className="row">
        <InputNumber size="small" min={1} max={100} precision={0} aria-label="Sensitivity for all marked" value={sensitivity} onChange={setSensitivity} />
        <Button size="small" disabled={none || sensitivity === null} onClick={() => change((d) => ('sensitivity' in d ? { sensitivity: sensitivity! } : null), 'Set the sensitivity')}>
          Set sensitivity
        </Button>
      </div>
      <Select size="small" mode="multiple" allowClear disabled={none} aria-label="Classes for all marked" placeholder="Set the classes …" value={commonClasses(marked)} options={CLASSES.map((value) => ({ value, label: value }))} onChange={(classes: (typeof CLASSES)[number][]) => change((d) => ('classes' in d ? { classes } : null), 'Set the classes')} />
      <Select size="small" disabled={none} aria-label="Hours for all marked" placeholder="Set the arming hours …" value={commonSchedule(marked)} options={[{ value: ALWAYS, label: 'Always' }, ...schedules.map(({ id, name }) => ({ value: id, label: name }))]} onChange={(id: string) => change(() => ({ schedule: id === ALWAYS ? undefined : id }), 'Set the hours')} />
      <div className="row">
        <Input size="small" aria-label="E-mail for all marked" placeholder="duty@example.org" value={to} status={error ? 'error' : undefined} onChange={(e) => setTo(e.target.value)} onPressEnter={link} />
        <Button size="small" disabled={none} onClick={link}>
          {to.trim() ? 'Link' : 'Unlink'}
        </Button>
      </div>
      {error && (
        <span className="field-error" role="alert">
          {error}
        </span>
      )}
      <div className="row">
        <Button size="small" disabled={none} onClick={() => change(() => ({ enabled: true }), 'Use')}>
          In use
        </Button>
        <Button size="small" disabled={none} onClick={() => change(() => ({ enabled: false }), 'Switch off')}>
          Off
        </Button>
        <Button size="small" disabled={none} danger onClick={() => document.editAll(marked.map(({ id }) => ({ id, detection: null })), `Delete ${count}`)}>
          Delete
        </Button>
        <Button size="small" type="primary" onClick={onDone}>
          Done
        </Button>
      </div>
    </section>
  )
}

/** What all of them have; undefined where they differ, so that nothing is claimed. */
function commonSchedule(marked: readonly Detection[]): string | undefined {
  const [first] = marked
  return first && marked.every((d) => d.schedule === first.schedule) ? (first.schedule ?? ALWAYS) : undefined
}
function commonClasses(marked: readonly Detection[]): (typeof CLASSES)[number][] {
  const lists = marked.flatMap((d) => ('classes' in d ? [d.classes] : []))
  return lists.length && lists.every((l) => l.join() === lists[0].join()) ? lists[0] : []
}
