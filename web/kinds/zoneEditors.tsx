import { settingSeconds } from '../../core/messages/format.ts'
import { said } from '../../core/messages/said.ts'
import { common } from '../../core/messages/en/common.ts'
import { zoneEditors as msg } from '../../core/messages/en/kinds/parts.ts'
import { Button, InputNumber, Radio, Switch } from 'antd'
import { useMemo, type ReactNode } from 'react'
import { dwellAbovePassers, type DwellDetection, type ZoneStay } from '../../core/tuning/stays.ts'
import { kindNames, wordsOf } from '../../core/kinds/names.ts'
import { ZONE_KINDS, asZoneKind } from './zones.ts'
import { SecondsEditor, type EditorProps } from './editors.tsx'
import { Later } from '../bench/Later.tsx'
import type { ZoneDetection } from '../../core/kinds/schemas.ts'
import { lazyPart } from '../lazyPart.tsx'

const StaysChart = lazyPart(() => import('./StaysChart.tsx'), 'StaysChart')

export function ZoneKindEditor({ detection, document }: EditorProps<ZoneDetection>): ReactNode {
  return (
    <Radio.Group
      vertical
      value={detection.kind}
      options={ZONE_KINDS.map((value) => ({
        value,
        label: `${kindNames[value]}: ${wordsOf(value).meaning}`
      }))}
      onChange={(e) =>
        document.edit(
          asZoneKind(detection, e.target.value as ZoneDetection['kind']),
          said('edits.makeIt', kindNames[e.target.value as ZoneDetection['kind']].toLowerCase())
        )
      }
    />
  )
}

/** The dwell beside how long the clip's targets stay: passers-by and stayers apart. */
export function DwellEditor({
  detection,
  document,
  stays,
  least
}: EditorProps<DwellDetection> & {
  stays: readonly ZoneStay[] | null
  /** The shortest that the kind allows, seconds. */
  least: number
}): ReactNode {
  const above = useMemo(() => stays && dwellAbovePassers(stays), [stays])
  const set = (dwellSeconds: number): void =>
    document.edit({ ...detection, dwellSeconds }, said('edits.changeTheDwell'))
  return (
    <>
      <SecondsEditor
        parameter={detection.dwellSeconds > 0 ? 'TimeThreshold' : undefined}
        label={common.dwell}
        value={detection.dwellSeconds}
        min={least}
        max={3600}
        help={msg.howLongInZone}
        onChange={set}
      />
      {stays === null ? (
        <p className="quiet">{msg.selectAClipTo}</p>
      ) : stays.length === 0 ? (
        <p className="quiet">{msg.inThisClipNo}</p>
      ) : (
        <Later>
          <StaysChart stays={stays} dwell={detection.dwellSeconds} />
        </Later>
      )}
      {above && above.dwell !== detection.dwellSeconds && (
        <p>
          {msg.passersBy(settingSeconds(above.usual))}{' '}
          <Button size="small" onClick={() => set(above.dwell)}>
            {msg.setTo(settingSeconds(above.dwell))}
          </Button>
        </p>
      )}
      <label className="row">
        <span>{msg.countFirstSeen}</span>
        <Switch
          size="small"
          checked={detection.countFirstSeenInside}
          onChange={(countFirstSeenInside) =>
            document.edit({ ...detection, countFirstSeenInside }, said('edits.countFirstSeen'))
          }
        />
      </label>
    </>
  )
}

export function AtLeastEditor({ detection, document }: EditorProps<DwellDetection>): ReactNode {
  return (
    <label className="field">
      <span>{msg.sameTime}</span>
      <InputNumber
        autoFocus
        min={1}
        max={100}
        precision={0}
        value={detection.atLeast}
        onChange={(atLeast) =>
          atLeast !== null && document.edit({ ...detection, atLeast }, said('edits.changeHowMany'))
        }
      />
      <span className="quiet">{msg.oneEach}</span>
    </label>
  )
}
