import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/face.ts'
import { frameSize } from '../../../core/messages/format.ts'
import type { FaceDetection } from '../../../core/kinds/face/schema.ts'
import { Rich } from '../../words/Rich.tsx'
import { Chip } from '../Chip.tsx'
import { NameChip, targetConditions } from '../chips.tsx'
import type { KindSentence } from '../sentence.ts'
import { listWords, maskWords } from '../../../core/kinds/face/words.ts'
import { classWords } from '../../../core/kinds/words.ts'
import { ClassesEditor, FaceFrameEditor, ListEditor, MaskEditor } from '../chipEditors.ts'

export const faceSentence: KindSentence<FaceDetection> = {
  What: ({ detection: d, document }) => (
    <Rich
      text={msg.aFace}
      parts={{
        name: <NameChip detection={d} document={document} />,
        size: (
          <Chip
            what={msg.smallestFace}
            editor={(close) => <FaceFrameEditor detection={d} document={document} close={close} />}
          >
            {msg.atLeast(frameSize(d.faceMin.w, d.faceMin.h))}
          </Chip>
        )
      }}
    />
  ),
  conditions: (props) => {
    const { detection: d, document } = props
    return [
      {
        what: common.mask,
        isSet: d.mask !== 'any',
        text: maskWords(d),
        editor: (close) => <MaskEditor detection={d} document={document} close={close} />
      },
      {
        what: msg.faceList,
        isSet: d.list !== 'any',
        text: listWords(d),
        editor: (close) => <ListEditor detection={d} document={document} close={close} />
      },
      {
        what: common.classes,
        isSet: d.classes.length > 0,
        text: msg.onA(classWords(d)),
        editor: (close) => <ClassesEditor detection={d} document={document} close={close} />
      },
      ...targetConditions(props)
    ]
  }
}
