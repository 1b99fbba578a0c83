import { atSite } from '../../api/here.ts'
import { classes as classNames } from '../../../core/messages/en/codes/conditions.ts'
import { clipTime } from '../../../core/messages/format.ts'
import { compare as msg } from '../../../core/messages/en/bench/compare.ts'
import './compare.css'
import '../bench.css'
import { Checkbox, Modal } from 'antd'
import { useState, type ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import type { Trigger } from '../../../core/detections/index.ts'
import { hasField, type Detection } from '../../../core/formats/plan.ts'
import { isWanted } from '../../../core/proving/wanted.ts'
import { CLASSES, type TargetClass } from '../../../core/targets/classes.ts'
import type { Tracks } from '../../../core/targets/tracks.ts'
import { useTruth } from '../../api/evidence.ts'
import type { Placed } from '../document.ts'
import { KINDS, kindNames } from '../../../core/kinds/names.ts'
import { Failed, Passed } from '../../words/signs.tsx'

/** Kinds that see targets or motion, without faces: motion first, to which the others are compared. */
const compared = [
  ...KINDS.filter((kind) => hasField(kind, 'cells')),
  ...KINDS.filter((kind) => hasField(kind, 'line') || hasField(kind, 'zone'))
]
const order = (d: Detection): number => compared.indexOf(d.kind)
/** More pictures than these are not looked at. */
const MAX_PICTURES = 12

export interface CompareProps {
  open: boolean
  clip: ClipView
  tracks: Tracks
  placed: Placed[]
  triggers: Trigger[]
  onClose: () => void
  onTrigger: (trigger: Trigger) => void
}

/** One clip, its detections side by side: how often each triggered, and how many of the triggers somebody would want. */
export function Compare({
  open,
  clip,
  tracks,
  placed,
  triggers,
  onClose,
  onTrigger
}: CompareProps): ReactNode {
  const [classes, setClasses] = useState<TargetClass[]>(['person'])
  const truth = useTruth(open ? clip : null).data
  const present = truth ?? tracks
  const detections = placed
    .map((p) => p.detection)
    .filter((d) => d.enabled && compared.includes(d.kind))
    .sort((a, b) => order(a) - order(b))
  return (
    <Modal
      open={open}
      title={msg.compareKinds(clip.name)}
      footer={null}
      onCancel={onClose}
      width={1000}
      destroyOnHidden
    >
      <div className="compare-wanted">
        <span>{msg.wantedATriggerWith}</span>
        <Checkbox.Group
          value={classes}
          options={CLASSES.filter((c) => c !== 'unknown').map((value) => ({
            value,
            label: classNames[value]
          }))}
          onChange={(list) => setClasses(list)}
        />
        <span className="quiet">{msg.inThePictureByThe(Boolean(truth))}</span>
      </div>
      {detections.length === 0 && <p>{msg.noDetectionsToCompare}</p>}
      <div
        className="compare"
        style={{ gridTemplateColumns: `repeat(${Math.max(1, detections.length)}, minmax(0, 1fr))` }}
      >
        {detections.map((d) => {
          const own = triggers
            .filter((t) => t.detection === d.id)
            .map((trigger) => ({ trigger, wanted: isWanted(trigger, present, classes) }))
          const wanted = own.filter((t) => t.wanted).length
          return (
            <section key={d.id} aria-label={d.name}>
              <h3>
                {kindNames[d.kind]} <span className="quiet">{d.name}</span>
              </h3>
              <p className="compare-count figures">{own.length}</p>
              <p>
                {own.length === 0 ? (
                  <span className="quiet">{msg.noTrigger}</span>
                ) : (
                  <>
                    <b className="wanted">{msg.wanted(wanted)}</b> ·{' '}
                    <b className="unwanted">{msg.nuisances(own.length - wanted)}</b>
                  </>
                )}
              </p>
              <div className="compare-bar" aria-hidden="true">
                <span style={{ width: `${own.length ? (100 * wanted) / own.length : 0}%` }} />
              </div>
              <ul>
                {own.slice(0, MAX_PICTURES).map(({ trigger, wanted: good }) => (
                  <li
                    key={`${trigger.frame} ${trigger.target ?? ''}`}
                    className={good ? '' : 'for-nothing'}
                  >
                    <button
                      type="button"
                      className="link"
                      onClick={() => onTrigger(trigger)}
                      aria-label={msg.atWanted(d.name, clipTime(trigger.time), good)}
                    >
                      <img
                        src={atSite(`/clips/${clip.id}/picture?at=${trigger.time.toFixed(2)}`)}
                        alt=""
                        loading="lazy"
                      />
                      <span className="figures">
                        {good ? <Passed /> : <Failed />} {clipTime(trigger.time)}
                      </span>
                    </button>
                  </li>
                ))}
              </ul>
              {own.length > MAX_PICTURES && (
                <p className="quiet">{msg.andMoreOnTheTimeline(own.length - MAX_PICTURES)}</p>
              )}
            </section>
          )
        })}
      </div>
    </Modal>
  )
}
