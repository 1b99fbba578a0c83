import { Button, InputNumber, Radio, Switch } from 'antd'
import { lazy, useMemo, type ReactNode } from 'react'
import type { LoiteringDetection } from '../../../core/formats/plan.ts'
import {
  dwellAbovePassers,
  type DwellDetection,
  type ZoneStay
} from '../../../core/tuning/stays.ts'
import { kindNames } from '../../kinds.ts'
import { ZONE_KINDS, asZoneKind, type ZoneDetection } from '../picture/shape.ts'
import { secondsWords } from '../../kept/detectionWords.ts'
import { SecondsEditor, type EditorProps } from './editors.tsx'
import { Later } from '../Later.tsx'

const StaysChart = lazy(() => import('./StaysChart.tsx').then((m) => ({ default: m.StaysChart })))

const meanings: Record<(typeof ZONE_KINDS)[number], string> = {
  intrusion: 'somebody is in it for as long as the dwell',
  loitering: 'somebody lingers, also with short absences',
  entry: 'somebody comes in from outside',
  exit: 'somebody who was in it goes out'
}

export function ZoneKindEditor({ detection, document }: EditorProps<ZoneDetection>): ReactNode {
  return (
    <Radio.Group
      vertical
      value={detection.kind}
      options={ZONE_KINDS.map((value) => ({
        value,
        label: `${kindNames[value]}: ${meanings[value]}`
      }))}
      onChange={(e) =>
        document.edit(
          asZoneKind(detection, e.target.value as ZoneDetection['kind']),
          `Make it ${kindNames[e.target.value as ZoneDetection['kind']].toLowerCase()}`
        )
      }
    />
  )
}

/** The dwell beside how long the clip's targets stay: passers-by and stayers apart. */
export function DwellEditor({
  detection,
  document,
  stays
}: EditorProps<DwellDetection> & { stays: readonly ZoneStay[] | null }): ReactNode {
  const above = useMemo(() => stays && dwellAbovePassers(stays), [stays])
  const set = (dwellSeconds: number): void =>
    document.edit({ ...detection, dwellSeconds }, 'Change the dwell')
  return (
    <>
      <SecondsEditor
        parameter={detection.dwellSeconds > 0 ? 'TimeThreshold' : undefined}
        label="Dwell"
        value={detection.dwellSeconds}
        min={detection.kind === 'loitering' ? 1 : 0}
        max={3600}
        help="How long a target must stay in the zone."
        onChange={set}
      />
      {stays === null ? (
        <p className="quiet">With a clip it is shown here how long its targets stay.</p>
      ) : stays.length === 0 ? (
        <p className="quiet">On this clip nobody of these classes is in the zone.</p>
      ) : (
        <Later>
          <StaysChart stays={stays} dwell={detection.dwellSeconds} />
        </Later>
      )}
      {above && above.dwell !== detection.dwellSeconds && (
        <p>
          Passers-by take up to {secondsWords(above.usual)}.{' '}
          <Button size="small" onClick={() => set(above.dwell)}>
            Set it to {secondsWords(above.dwell)}
          </Button>
        </p>
      )}
      <label className="row">
        <span>Count who is in it when first seen</span>
        <Switch
          size="small"
          checked={detection.countFirstSeenInside}
          onChange={(countFirstSeenInside) =>
            document.edit({ ...detection, countFirstSeenInside }, 'Change who counts')
          }
        />
      </label>
    </>
  )
}

export function GraceEditor({ detection, document }: EditorProps<LoiteringDetection>): ReactNode {
  return (
    <SecondsEditor
      parameter="GraceTime"
      label="Grace"
      value={detection.graceSeconds}
      max={120}
      help="Who is out of the zone for no longer than this is still lingering."
      onChange={(graceSeconds) => document.edit({ ...detection, graceSeconds }, 'Change the grace')}
    />
  )
}

export function AtLeastEditor({ detection, document }: EditorProps<DwellDetection>): ReactNode {
  return (
    <label className="field">
      <span>Targets at the same time</span>
      <InputNumber
        autoFocus
        min={1}
        max={100}
        precision={0}
        value={detection.atLeast}
        onChange={(atLeast) =>
          atLeast !== null && document.edit({ ...detection, atLeast }, 'Change how many')
        }
      />
      <span className="quiet">
        1: each target counts alone. More: one trigger when so many have dwelt in the zone together.
      </span>
    </label>
  )
}
