import { classes as classNames } from '../../../core/messages/en/codes/conditions.ts'
import { type Said, said } from '../../../core/messages/said.ts'
import { common } from '../../../core/messages/en/common.ts'
import { bulkPanel as msg } from '../../../core/messages/en/bench/rail.ts'
import './rail.css'
import '../bench.css'
import { Button, InputNumber, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SavedEndpoint } from '../../../core/api.ts'
import { DetectionSchema, type Detection, type Schedule } from '../../../core/formats/plan.ts'
import { CLASSES } from '../../../core/targets/classes.ts'
import type { BenchDocument } from '../document.ts'
import { parseWith } from '../../../core/schema/parse.ts'

const ALWAYS = ''

/**
 * Changes of several detections at once, each change one step. Kinds that have no such setting are
 * left as they are.
 */
export function BulkPanel({
  document,
  marked,
  schedules,
  endpoints,
  onAll,
  onDone
}: {
  document: BenchDocument
  marked: readonly Detection[]
  schedules: readonly Schedule[]
  endpoints: readonly SavedEndpoint[]
  onAll: () => void
  onDone: () => void
}): ReactNode {
  const [sensitivity, setSensitivity] = useState<number | null>(50)
  const [endpoint, setEndpoint] = useState<string | undefined>(undefined)
  const count = msg.detectionDetections(marked.length)
  const none = marked.length === 0
  const change = (part: (d: Detection) => Partial<Detection> | null, label: Said): void =>
    document.editAll(
      marked.flatMap((d) => {
        const changed = part(d)
        return changed
          ? [{ id: d.id, detection: parseWith(DetectionSchema, { ...d, ...changed }) }]
          : []
      }),
      said('edits.of2', label, count)
    )
  const link = (linked: boolean): void => {
    const name = endpoints.find((e) => e.endpoint.id === endpoint)?.endpoint.name ?? ''
    document.link(
      marked.map(({ id }) => id),
      endpoint!,
      linked,
      said('edits.linkUnlinkOf', linked, name, count)
    )
  }
  return (
    <section className="bulk" aria-label={msg.editSeveral}>
      <header className="row">
        <h3>{none ? msg.markDetectionsAbove : msg.for(count)}</h3>
        <Button size="small" type="link" onClick={onAll}>
          {common.all}
        </Button>
      </header>
      <div className="row">
        <InputNumber
          size="small"
          min={1}
          max={100}
          precision={0}
          aria-label={msg.sensitivityForAllMarked}
          value={sensitivity}
          onChange={setSensitivity}
        />
        <Button
          size="small"
          disabled={none || sensitivity === null}
          onClick={() =>
            change(
              (d) => ('sensitivity' in d ? { sensitivity: sensitivity! } : null),
              said('edits.setTheSensitivity')
            )
          }
        >
          {msg.setSensitivity}
        </Button>
      </div>
      <Select
        size="small"
        mode="multiple"
        allowClear
        disabled={none}
        aria-label={msg.classesForAllMarked}
        placeholder={msg.setTheClasses}
        value={commonClasses(marked)}
        options={CLASSES.map((value) => ({ value, label: classNames[value] }))}
        onChange={(classes: (typeof CLASSES)[number][]) =>
          change((d) => ('classes' in d ? { classes } : null), said('edits.setTheClasses'))
        }
      />
      <Select
        size="small"
        disabled={none}
        aria-label={msg.scheduleForAllSelected}
        placeholder={msg.setSchedule}
        value={commonSchedule(marked)}
        options={[
          { value: ALWAYS, label: msg.always },
          ...schedules.map(({ id, name }) => ({ value: id, label: name }))
        ]}
        onChange={(id: string) =>
          change(() => ({ schedule: id === ALWAYS ? undefined : id }), said('edits.setTheHours'))
        }
      />
      <div className="row">
        <Select
          size="small"
          className="grow"
          aria-label={msg.actionForAllMarked}
          placeholder={msg.action}
          value={endpoint}
          options={endpoints.map(({ endpoint: { id, name } }) => ({ value: id, label: name }))}
          onChange={setEndpoint}
        />
        <Button size="small" disabled={none || !endpoint} onClick={() => link(true)}>
          {msg.link}
        </Button>
        <Button size="small" disabled={none || !endpoint} onClick={() => link(false)}>
          {msg.unlink}
        </Button>
      </div>
      <div className="row">
        <Button
          size="small"
          disabled={none}
          onClick={() => change(() => ({ enabled: true }), said('edits.use'))}
        >
          {msg.on}
        </Button>
        <Button
          size="small"
          disabled={none}
          onClick={() => change(() => ({ enabled: false }), said('edits.switchOff'))}
        >
          {msg.off}
        </Button>
        <Button
          size="small"
          disabled={none}
          danger
          onClick={() =>
            document.editAll(
              marked.map(({ id }) => ({ id, detection: null })),
              said('edits.delete2', count)
            )
          }
        >
          {common.delete}
        </Button>
        <Button size="small" type="primary" onClick={onDone}>
          {msg.done}
        </Button>
      </div>
    </section>
  )
}

/** What all of them have; undefined where they differ, so that nothing is claimed. */
function commonSchedule(marked: readonly Detection[]): string | undefined {
  const [first] = marked
  return first && marked.every((d) => d.schedule === first.schedule)
    ? (first.schedule ?? ALWAYS)
    : undefined
}
function commonClasses(marked: readonly Detection[]): (typeof CLASSES)[number][] {
  const lists = marked.flatMap((d) => ('classes' in d ? [d.classes] : []))
  return lists.length && lists.every((l) => l.join() === lists[0]!.join()) ? lists[0]! : []
}
