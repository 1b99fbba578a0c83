import { settingSeconds } from '../../core/messages/format.ts'
import type { ZoneDetection } from '../../core/kinds/schemas.ts'
import { common } from '../../core/messages/en/common.ts'
import { sentence as msg } from '../../core/messages/en/kinds/parts.ts'
import { memo, useState, type ReactNode } from 'react'
import type { SavedEndpoint } from '../../core/api.ts'
import type { Detection, DetectionKind, Schedule } from '../../core/formats/plan.ts'
import { linkWords } from '../bench/inspector/linkWords.ts'
import { Chip } from './Chip.tsx'
import { AddCondition, ConditionChips, type Condition } from './Conditions.tsx'
import { classMotionSentence } from './classMotion/Sentence.tsx'
import { contactSentence } from './contact/Sentence.tsx'
import { faceSentence } from './face/Sentence.tsx'
import { lineSentence } from './line/Sentence.tsx'
import { motionSentence } from './motion/Sentence.tsx'
import { signalLossSentence } from './signalLoss/Sentence.tsx'
import { tamperSentence } from './tamper/Sentence.tsx'
import { zoneSentence } from './ZoneSentence.tsx'
import type { KindSentence, SentenceOf } from './sentence.ts'
import { scheduleWords } from '../../core/kinds/words.ts'
import { loadEditors, ActionsEditor, HoldOffEditor, HoursEditor } from './chipEditors.ts'

export interface SentenceProps extends SentenceOf {
  schedules: Schedule[]
  endpoints: readonly SavedEndpoint[]
  /** Endpoints that it is linked to. */
  links: readonly string[]
  users: (schedule: string) => number
}

/**
 * The detection as a sentence, every part of it an editable chip. What is at its default is left out, and reached by
 * *Add condition*.
 */
export const Sentence = memo(function Sentence(props: SentenceProps): ReactNode {
  const { document, detection } = props
  const [adding, setAdding] = useState<string | null>(null)
  const { What, conditions } = sentences[detection.kind] as unknown as KindSentence<Detection>
  const all: Condition[] = [
    ...(conditions?.(props) ?? []),
    {
      what: common.reTriggerDelay,
      isSet: detection.holdOffSeconds > 0,
      text: detection.holdOffSeconds
        ? msg.notWithin(settingSeconds(detection.holdOffSeconds))
        : msg.everyTime,
      editor: (close) => <HoldOffEditor detection={detection} document={document} close={close} />
    },
    {
      what: common.armingSchedule,
      isSet: detection.schedule !== undefined || detection.armInput !== undefined,
      text: msg.armed(scheduleWords(detection, props.schedules)),
      editor: () => (
        <HoursEditor
          detection={detection}
          document={document}
          schedules={props.schedules}
          users={props.users}
        />
      )
    }
  ]
  const soon = (): void => void loadEditors()
  const linked = linkWords(props.links, props.endpoints)
  return (
    <p className="sentence" onPointerEnter={soon} onFocus={soon}>
      <What {...props} />
      <ConditionChips all={all} adding={adding} onAdded={() => setAdding(null)} />.{' '}
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
        {linked === null ? msg.noActions : msg.withActions(linked)}
      </Chip>
      . <AddCondition all={all.filter(({ what }) => what !== adding)} onAdd={setAdding} />
    </p>
  )
})

/** The part of the sentence that each kind decides. */
const sentences: {
  [K in DetectionKind]: K extends ZoneDetection['kind']
    ? KindSentence<ZoneDetection>
    : KindSentence<Extract<Detection, { kind: K }>>
} = {
  line: lineSentence,
  intrusion: zoneSentence,
  entry: zoneSentence,
  exit: zoneSentence,
  loitering: zoneSentence,
  motion: motionSentence,
  classMotion: classMotionSentence,
  tamper: tamperSentence,
  signalLoss: signalLossSentence,
  contact: contactSentence,
  face: faceSentence
}
