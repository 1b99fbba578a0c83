import { common } from '../../core/messages/en/common.ts'
import { stayChips as msg } from '../../core/messages/en/kinds/parts.ts'
import type { ReactNode } from 'react'
import type { StayDetection } from '../../core/kinds/schemas.ts'
import { Chip } from './Chip.tsx'
import type { SentenceOf } from './sentence.ts'
import { atLeastWords, secondsWords } from './words.ts'
import { AtLeastEditor, DwellEditor } from './zoneEditors.tsx'

type Props = SentenceOf<StayDetection>

/** How many must be in the zone together. */
export const TogetherChip = ({ detection, document }: Props): ReactNode => (
  <Chip
    what={msg.howManyTogether}
    editor={(close) => <AtLeastEditor detection={detection} document={document} close={close} />}
  >
    {atLeastWords(detection)}
  </Chip>
)

/** `least`: the shortest dwell that the kind allows, seconds. */
export const DwellChip = ({
  detection,
  document,
  stays,
  least
}: Props & { least: number }): ReactNode => (
  <Chip
    what={common.dwell}
    editor={(close) => (
      <DwellEditor
        detection={detection}
        document={document}
        stays={stays}
        least={least}
        close={close}
      />
    )}
  >
    {secondsWords(detection.dwellSeconds)}
  </Chip>
)
