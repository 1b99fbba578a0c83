import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/face.ts'
import type { ReactNode } from 'react'
import type { FaceDetection } from '../../../core/kinds/face/schema.ts'
import { Chip } from '../Chip.tsx'
import { ClassesChip, GateChips, NameChip } from '../chips.tsx'
import type { SentenceOf } from '../sentence.ts'
import { percentWords } from '../words.ts'
import { FaceFrameEditor, ListEditor, MaskEditor } from './editors.tsx'
import { listWords, maskWords } from './words.ts'

export function FaceSentence(props: SentenceOf<FaceDetection>): ReactNode {
  const { detection: d, document } = props
  return (
    <>
      {msg.aFaceAt} <NameChip detection={d} document={document} />{' '}
      <Chip
        what={msg.smallestFace}
        editor={(close) => <FaceFrameEditor detection={d} document={document} close={close} />}
      >
        {msg.ofAtLeast(percentWords(100 * d.faceMin.w), percentWords(100 * d.faceMin.h))}
      </Chip>
      ,{' '}
      <Chip
        what={common.mask}
        editor={(close) => <MaskEditor detection={d} document={document} close={close} />}
      >
        {maskWords(d)}
      </Chip>
      ,{' '}
      <Chip
        what={msg.listOfFaces}
        editor={(close) => <ListEditor detection={d} document={document} close={close} />}
      >
        {listWords(d)}
      </Chip>
      {msg.onA} <ClassesChip detection={d} document={document} /> <GateChips {...props} />
    </>
  )
}
