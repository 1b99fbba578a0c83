import { lookBack as msg } from '../../../core/messages/en/bench/lookBack.ts'
import { SaveOutlined } from '@ant-design/icons'
import { useMutation } from '@tanstack/react-query'
import { App, Button } from 'antd'
import type { ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { LONGEST_CLIP_MS } from '../../../core/lookBack/rows.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { endsOf } from '../../../core/messages/format.ts'
import { request } from '../../api/client.ts'
import { useContents } from '../contexts.ts'
import type { Range } from '../selection.ts'

/** Makes a clip of the range that is looked back at. */
export function SaveAsClip({
  range,
  onSaved
}: {
  /** Null: none is chosen yet. */
  range: Range | null
  onSaved: (clip: string) => void
}): ReactNode {
  const { view } = useContents()
  const { message } = App.useApp()
  const { mutate, isPending } = useMutation({
    mutationFn: ({ from, to }: Range) =>
      request<ClipView>('POST', `/cameras/${encodeURIComponent(view.camera.id)}/look-back/clips`, {
        from,
        to,
        name: msg.clipName(msg.range(...endsOf(from, to, view.site.timeZone)))
      }),
    onSuccess: ({ id }) => onSaved(id),
    onError: (error) => void message.error(problemWords(error))
  })
  const isLong = range !== null && range.to - range.from > LONGEST_CLIP_MS
  return (
    <Button
      size="small"
      icon={<SaveOutlined aria-hidden />}
      disabled={!range || isLong}
      title={isLong ? msg.clipIsShort : undefined}
      loading={isPending}
      onClick={() => range && mutate(range)}
    >
      {msg.saveAsClip}
    </Button>
  )
}
