import { lookBack, marking as msg } from '../../../core/messages/en/bench/lookBack.ts'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Alert, Button } from 'antd'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { ClipView } from '../../../core/api.ts'
import type { Check } from '../../../core/formats/check.ts'
import type { MarkKind } from '../../../core/marks/marks.ts'
import { seconds } from '../../../core/messages/format.ts'
import { Failure } from '../../../core/errors.ts'
import { said } from '../../../core/messages/said.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { checkOfMark, stretchAround } from '../../../core/proving/fromMark.ts'
import { request } from '../../api/client.ts'
import { newId } from '../../sync/newId.ts'
import { useClock } from '../../words/useClock.ts'
import { useContents, useOnShow } from '../contexts.ts'

const MAX_NAME = 80
const LOOK_MS = 300

/** A check can be run as soon as there is one. @throws Failure when nothing came of the clip */
async function whenReady({ id, name }: ClipView): Promise<ClipView> {
  for (;;) {
    const clip = await request<ClipView>('GET', `/clips/${id}`)
    if (clip.state === 'ready') return clip
    if (clip.state !== 'analysing')
      throw new Failure(clip.error ?? said('input.hasNotBeenAnalysed', name))
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
  }
}

/** Makes a check of what was said of a target at a moment; of the past, its stretch is saved as a clip first. */
export function UseAsCheck({
  detection,
  target,
  time,
  mark,
  fired
}: {
  detection: string
  target: number | null
  /** Seconds from the start of what is on show. */
  time: number
  mark: MarkKind
  fired: boolean
}): ReactNode {
  const clock = useClock()
  const queries = useQueryClient()
  const { view } = useContents()
  const { clip, back, spans } = useOnShow()
  const camera = `/cameras/${encodeURIComponent(view.camera.id)}`
  const { mutate, isPending, data, error } = useMutation({
    mutationFn: async ({ id, start, frames, fps, name }: ClipView) => {
      const stay = spans.find((s) => s.id === target && s.from <= time && time <= s.to) ?? null
      const stretch = stretchAround(time, stay, frames / fps)
      const from = start + 1000 * stretch.from
      const at = clock.dateAndTime(start + 1000 * time)
      const kept = back
        ? await whenReady(
            await request<ClipView>('POST', `${camera}/look-back/clips`, {
              from,
              to: Math.round(start + 1000 * stretch.to),
              name: lookBack.clipName(at)
            })
          )
        : { id, start }
      const check: Check = checkOfMark({
        id: `${detection}.${newId('own')}`,
        detection,
        name: (back ? lookBack.clipName(at) : msg.checkName(name, seconds(time))).slice(
          0,
          MAX_NAME
        ),
        clip: kept,
        // The clip of a stretch begins with it.
        stretch: back ? { from: 0, to: stretch.to - stretch.from } : stretch,
        time: back ? time - stretch.from : time,
        mark,
        fired
      })
      await request('PUT', `${camera}/checks/${encodeURIComponent(check.id)}`, {
        check,
        version: 0
      })
      await queries.invalidateQueries({ queryKey: ['proving'] })
      return check.id
    }
  })
  if (!clip) return null
  return (
    <>
      {data !== undefined ? (
        <p className="quiet" role="status">
          {msg.isACheck}{' '}
          <Link to={`/prove?camera=${view.camera.id}&detection=${detection}&check=${data}`}>
            {msg.openCheck}
          </Link>
        </p>
      ) : (
        <Button size="small" loading={isPending} onClick={() => mutate(clip)}>
          {msg.useAsCheck}
        </Button>
      )}
      {error && <Alert type="error" title={problemWords(error)} />}
    </>
  )
}
