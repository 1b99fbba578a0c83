import { common } from '../../core/messages/en/common.ts'
import { sentence as msg } from '../../core/messages/en/kinds/parts.ts'
import { memo, type ComponentType, type ReactNode } from 'react'
import type { SavedEndpoint } from '../../core/api.ts'
import type { Detection, DetectionKind, Schedule } from '../../core/formats/plan.ts'
import { ActionsEditor, linkWords } from '../bench/inspector/ActionsEditor.tsx'
import { HoursEditor } from '../bench/schedule/HoursEditor.tsx'
import { Chip } from './Chip.tsx'
import { ClassMotionSentence } from './classMotion/Sentence.tsx'
import { ContactSentence } from './contact/Sentence.tsx'
import { FaceSentence } from './face/Sentence.tsx'
import { LineSentence } from './line/Sentence.tsx'
import { MotionSentence } from './motion/Sentence.tsx'
import { SignalLossSentence } from './signalLoss/Sentence.tsx'
import { TamperSentence } from './tamper/Sentence.tsx'
import { ZoneSentence } from './ZoneSentence.tsx'
import { HoldOffEditor } from './editors.tsx'
import type { SentenceOf } from './sentence.ts'
import { scheduleWords, secondsWords } from './words.ts'

export interface SentenceProps extends SentenceOf {
  schedules: Schedule[]
  endpoints: readonly SavedEndpoint[]
  /** Endpoints that it sets off. */
  links: readonly string[]
  users: (schedule: string) => number
}

/** The detection as a sentence, every part of it an editable chip. */
export const Sentence = memo(function Sentence(props: SentenceProps): ReactNode {
  const { document, detection } = props
  const What = sentences[detection.kind] as ComponentType<SentenceOf>
  return (
    <p className="sentence">
      <What {...props} />
      {msg.armed}
      <Chip
        what={common.armingHours}
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
        what={common.holdOff}
        editor={(close) => (
          <HoldOffEditor detection={detection} document={document} close={close} />
        )}
      >
        {detection.holdOffSeconds
          ? msg.notWithinOfTheLast(secondsWords(detection.holdOffSeconds))
          : msg.everyTime}
      </Chip>
      {msg.setsOff}{' '}
      <Chip
        what={msg.actions}
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

/** The part of the sentence that each kind decides. */
const sentences: {
  [K in DetectionKind]: ComponentType<SentenceOf<Extract<Detection, { kind: K }>>>
} = {
  line: LineSentence,
  intrusion: ZoneSentence,
  entry: ZoneSentence,
  exit: ZoneSentence,
  loitering: ZoneSentence,
  motion: MotionSentence,
  classMotion: ClassMotionSentence,
  tamper: TamperSentence,
  signalLoss: SignalLossSentence,
  contact: ContactSentence,
  face: FaceSentence
}
