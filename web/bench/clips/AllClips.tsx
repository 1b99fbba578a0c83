import { allClips as msg } from '../../../core/messages/en/bench/clips.ts'
import './clips.css'
import '../bench.css'
import { Modal } from 'antd'
import { useEffect, useMemo, useState, type ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import type { Setting } from '../../../core/detections/index.ts'
import type { Placed } from '../document.ts'
import type { Evaluations } from '../evaluation.ts'
import { letterOf } from '../../../core/kinds/words.ts'
import { useAllClips } from './useAllClips.ts'

/** All clips of the camera side by side: how often each detection triggers on each. */
export function AllClips({
  open,
  clips,
  clip,
  placed,
  setting,
  evaluations,
  onChoose,
  onClose
}: {
  open: boolean
  clips: readonly ClipView[]
  clip: ClipView | null
  placed: readonly Placed[]
  setting: Setting | null
  evaluations: Evaluations
  onChoose: (id: string) => void
  onClose: () => void
}): ReactNode {
  return (
    <Modal
      open={open}
      title={msg.allClips}
      width={760}
      footer={null}
      onCancel={onClose}
      destroyOnHidden
    >
      <Counts {...{ clips, clip, placed, setting, evaluations, onChoose }} />
    </Modal>
  )
}

function Counts({
  clips,
  clip,
  placed,
  setting,
  evaluations,
  onChoose
}: Omit<Parameters<typeof AllClips>[0], 'open' | 'onClose'>): ReactNode {
  const { known, all } = useAllClips(clips, evaluations, true)
  const [counts, setCounts] = useState<ReadonlyMap<string, Record<string, number>>>(new Map())
  useEffect(() => {
    if (!setting || !known.length) return
    evaluations.ask(
      {
        type: 'counts',
        clips: known.map(({ id, fps, start, inputs }) => ({
          clip: id,
          setting: { ...setting, fps, start, inputs }
        }))
      },
      (answer) => {
        if (answer.type === 'counts')
          setCounts(new Map(answer.counts.map((c) => [c.clip, c.counts])))
      }
    )
  }, [evaluations, known, setting])
  const sum = useMemo(
    () =>
      placed.map(({ detection }) =>
        [...counts.values()].reduce((n, c) => n + (c[detection.id] ?? 0), 0)
      ),
    [placed, counts]
  )
  return (
    <>
      <table className="all-clips">
        <thead>
          <tr>
            <th scope="col">{msg.clip}</th>
            {placed.map(({ detection }, i) => (
              <th scope="col" key={detection.id} title={detection.name}>
                {letterOf(i)} <span className="quiet">{detection.name}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {clips.map((c) => (
            <tr key={c.id} className={c.id === clip?.id ? 'chosen' : undefined}>
              <th scope="row">
                <button type="button" className="link" onClick={() => onChoose(c.id)}>
                  {c.name}
                </button>
              </th>
              {placed.map(({ detection }) => {
                const n = counts.get(c.id)?.[detection.id] ?? 0
                return (
                  <td key={detection.id} className={n ? 'count fired' : 'count'}>
                    {counts.has(c.id) ? n : c.state === 'ready' ? '…' : '–'}
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
        {clips.length > 1 && (
          <tfoot>
            <tr>
              <th scope="row">{msg.total}</th>
              {sum.map((n, i) => (
                <td key={placed[i]!.detection.id}>{n}</td>
              ))}
            </tr>
          </tfoot>
        )}
      </table>
      {!all && <p className="quiet">{msg.readingTheOtherClips}</p>}
      {placed.length === 0 && <p className="quiet">{msg.noDetectionsYet}</p>}
    </>
  )
}
