import { memo, type ReactNode } from 'react'
import type { KeptEndpoint, SiteInput } from '../../../core/api.ts'
import type { Detection, Schedule, TargetGated } from '../../../core/formats/plan.ts'
import type { SeenSize } from '../../../core/tuning/sizes.ts'
import type { ZoneStay } from '../../../core/tuning/stays.ts'
import type { BenchDocument } from '../document.ts'
import { ActionsEditor, linkWords } from './ActionsEditor.tsx'
import { HoursEditor } from '../schedule/HoursEditor.tsx'
import {
  atLeastWords,
  bodyWords,
  causesWords,
  cellWords,
  classWords,
  contactWords,
  crossingWords,
  inputName,
  listWords,
  maskWords,
  percentWords,
  scheduleWords,
  secondsWords,
  sizeWords,
  zoneVerbs
} from '../../kept/detectionWords.ts'
import { Chip } from './Chip.tsx'
import {
  ClassesEditor,
  ConfirmEditor,
  DirectionEditor,
  HoldOffEditor,
  NameEditor,
  SensitivityEditor
} from './editors.tsx'
import { SizeEditor } from './SizeEditor.tsx'
import { AtLeastEditor, DwellEditor, GraceEditor, ZoneKindEditor } from './zoneEditors.tsx'
import {
  CausesEditor,
  ContactEditor,
  DelayEditor,
  FaceFrameEditor,
  ListEditor,
  MaskEditor,
  MotionDelaysEditor,
  MotionSensitivityEditor,
  SeverityEditor,
  TamperSensitivityEditor,
  ThresholdEditor
} from './frameEditors.tsx'

export interface SentenceProps {
  document: BenchDocument
  detection: Detection
  schedules: Schedule[]
  inputs: readonly SiteInput[]
  endpoints: readonly KeptEndpoint[]
  /** Endpoints that it sets off. */
  links: readonly string[]
  users: (schedule: string) => number
  /** How long the clip's targets stay in the detection's zone; null: no clip, or not known yet. */
  stays: readonly ZoneStay[] | null
  /** How large the clip's targets are; null: no clip, or not known yet. */
  sizes: readonly SeenSize[] | null
  /** The scene is measured: sizes can be in metres. */
  measured: boolean
}

/** The detection as a sentence, every part of it an editable chip. */
export const Sentence = memo(function Sentence(props: SentenceProps): ReactNode {
  const { document, detection } = props
  return (
    <p className="sentence">
      <What {...props} />
      {', armed '}
      <Chip
        what="Arming hours"
        editor={() => (
          <HoursEditor
            detection={detection}
            document={document}
            schedules={props.schedules}
            users={props.users}
          />
        )}
      >
        {scheduleWords(detection, props.schedules)}
      </Chip>
      ,{' '}
      <Chip
        what="Hold-off"
        editor={(close) => (
          <HoldOffEditor detection={detection} document={document} close={close} />
        )}
      >
        {detection.holdOffSeconds
          ? `not within ${secondsWords(detection.holdOffSeconds)} of the last`
          : 'every time'}
      </Chip>
      ; sets off{' '}
      <Chip
        what="Actions"
        editor={() => (
          <ActionsEditor
            detection={detection}
            document={document}
            endpoints={props.endpoints}
            links={props.links}
          />
        )}
      >
        {linkWords(props.links, props.endpoints)}
      </Chip>
      .
    </p>
  )
})

/** The part that the kind decides. */
function What(props: SentenceProps): ReactNode {
  const { document, detection: d, inputs, stays } = props
  const name = (
    <Chip
      what="Name"
      editor={(close) => <NameEditor detection={d} document={document} close={close} />}
    >
      {d.name}
    </Chip>
  )
  switch (d.kind) {
    case 'line':
      return (
        <>
          A {classChip(d, document)} crosses {name}{' '}
          <Chip
            what="Direction and sides"
            editor={(close) => <DirectionEditor detection={d} document={document} close={close} />}
          >
            {crossingWords(d)}
          </Chip>
          , with{' '}
          <Chip
            what="Body share"
            editor={(close) => (
              <SensitivityEditor detection={d} document={document} close={close} />
            )}
          >
            {bodyWords(d.sensitivity)}
          </Chip>{' '}
          over, {gateChips(d, props)}
        </>
      )
    case 'intrusion':
    case 'loitering':
    case 'entry':
    case 'exit':
      return (
        <>
          {'atLeast' in d && (
            <>
              <Chip
                what="How many together"
                editor={(close) => (
                  <AtLeastEditor detection={d} document={document} close={close} />
                )}
              >
                {atLeastWords(d)}
              </Chip>{' '}
            </>
          )}
          {!('atLeast' in d) && 'A '}
          {classChip(d, document)}{' '}
          <Chip
            what="What counts"
            editor={(close) => <ZoneKindEditor detection={d} document={document} close={close} />}
          >
            {zoneVerbs[d.kind]}
          </Chip>{' '}
          {name}, with{' '}
          <Chip
            what="Body share"
            editor={(close) => (
              <SensitivityEditor detection={d} document={document} close={close} />
            )}
          >
            {bodyWords(d.sensitivity)}
          </Chip>{' '}
          {d.kind === 'exit' ? 'out' : 'in'}
          {'dwellSeconds' in d && (
            <>
              , for{' '}
              <Chip
                what="Dwell"
                editor={(close) => (
                  <DwellEditor detection={d} document={document} stays={stays} close={close} />
                )}
              >
                {secondsWords(d.dwellSeconds)}
              </Chip>
            </>
          )}
          {d.kind === 'loitering' && (
            <>
              , away for{' '}
              <Chip
                what="Grace"
                editor={(close) => <GraceEditor detection={d} document={document} close={close} />}
              >{`at most ${secondsWords(d.graceSeconds)}`}</Chip>
            </>
          )}
          , {gateChips(d, props)}
        </>
      )
    case 'motion':
    case 'classMotion':
      return (
        <>
          {d.kind === 'motion' ? 'Motion' : <>A {classChip(d, document)} in motion</>} in {name}:{' '}
          <Chip
            what="Share of the cells"
            editor={(close) => <ThresholdEditor detection={d} document={document} close={close} />}
          >
            {percentWords(d.threshold)}
          </Chip>{' '}
          of {cellWords(d)} moves, at{' '}
          <Chip
            what="Sensitivity"
            editor={(close) => (
              <MotionSensitivityEditor detection={d} document={document} close={close} />
            )}
          >{`sensitivity ${d.sensitivity}`}</Chip>
          , for{' '}
          <Chip
            what="Delays"
            editor={(close) => (
              <MotionDelaysEditor detection={d} document={document} close={close} />
            )}
          >
            {secondsWords(d.onDelaySeconds)}
          </Chip>
          {d.kind === 'classMotion' && <>, {gateChips(d, props)}</>}
        </>
      )
    case 'tamper':
      return (
        <>
          {name}: the camera is{' '}
          <Chip
            what="Causes"
            editor={(close) => <CausesEditor detection={d} document={document} close={close} />}
          >
            {causesWords(d)}
          </Chip>
          , at{' '}
          <Chip
            what="Sensitivity"
            editor={(close) => (
              <TamperSensitivityEditor detection={d} document={document} close={close} />
            )}
          >{`sensitivity ${d.sensitivity}`}</Chip>
          , for{' '}
          <Chip
            what="Delay"
            editor={(close) => <DelayEditor detection={d} document={document} close={close} />}
          >
            {secondsWords(d.delaySeconds)}
          </Chip>
          , which is{' '}
          <Chip
            what="Severity"
            editor={(close) => <SeverityEditor detection={d} document={document} close={close} />}
          >
            {d.severity}
          </Chip>
        </>
      )
    case 'signalLoss':
      return (
        <>
          {name}: no new picture for{' '}
          <Chip
            what="Delay"
            editor={(close) => <DelayEditor detection={d} document={document} close={close} />}
          >
            {secondsWords(d.delaySeconds)}
          </Chip>
        </>
      )
    case 'contact':
      return (
        <>
          {name}:{' '}
          <Chip
            what="Contact"
            editor={(close) => (
              <ContactEditor detection={d} document={document} inputs={inputs} close={close} />
            )}
          >{`${inputName(inputs, d.input)} ${contactWords(d)}`}</Chip>{' '}
          for {secondsWords(d.debounceSeconds)}
        </>
      )
    case 'face':
      return (
        <>
          A face at {name}{' '}
          <Chip
            what="Smallest face"
            editor={(close) => <FaceFrameEditor detection={d} document={document} close={close} />}
          >{`of at least ${percentWords(100 * d.faceMin.w)} × ${percentWords(100 * d.faceMin.h)}`}</Chip>
          ,{' '}
          <Chip
            what="Mask"
            editor={(close) => <MaskEditor detection={d} document={document} close={close} />}
          >
            {maskWords(d)}
          </Chip>
          ,{' '}
          <Chip
            what="List of faces"
            editor={(close) => <ListEditor detection={d} document={document} close={close} />}
          >
            {listWords(d)}
          </Chip>
          , on a {classChip(d, document)} {gateChips(d, props)}
        </>
      )
  }
}

const classChip = (d: TargetGated, document: BenchDocument): ReactNode => (
  <Chip
    what="Classes"
    editor={(close) => <ClassesEditor detection={d} document={document} close={close} />}
  >
    {classWords(d)}
  </Chip>
)

const gateChips = (d: TargetGated, { document, sizes, measured }: SentenceProps): ReactNode => (
  <>
    seen for{' '}
    <Chip
      what="Confirm time"
      editor={(close) => <ConfirmEditor detection={d} document={document} close={close} />}
    >
      {secondsWords(d.confirmSeconds)}
    </Chip>
    ,{' '}
    <Chip
      what="Size frames"
      editor={(close) => (
        <SizeEditor
          detection={d}
          document={document}
          sizes={sizes}
          measured={measured}
          close={close}
        />
      )}
    >
      {sizeWords(d)}
    </Chip>
  </>
)
