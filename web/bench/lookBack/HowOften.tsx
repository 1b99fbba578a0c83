import { howOften as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useState, type ReactNode } from 'react'
import type { Detection } from '../../../core/formats/plan.ts'
import { howOften } from '../../../core/lookBack/rate.ts'
import type { CountView } from '../../../core/marks/views.ts'
import { request } from '../../api/client.ts'
import { useContents } from '../contexts.ts'
import { useDrawn } from './drawn.ts'

const DAY_MS = 86_400_000
const HOUR_MS = 3_600_000
/** A question is asked when nothing has changed for so long. */
const STILL_MS = 500

/** How often a detection as it is drawn would have triggered in the last days. */
export function HowOften({ detection }: { detection: Detection }): ReactNode {
  const { view } = useContents()
  const drawn = useDrawn(detection)
  const question = JSON.stringify({ ...drawn, detections: [{ ...detection, note: undefined }] })
  const [asked, setAsked] = useState(question)
  useEffect(() => {
    const timer = setTimeout(() => setAsked(question), STILL_MS)
    return () => clearTimeout(timer)
  }, [question])
  const { data } = useQuery({
    queryKey: ['how-often', view.camera.id, asked],
    queryFn: ({ signal }) =>
      request<CountView>(
        'POST',
        `/cameras/${encodeURIComponent(view.camera.id)}/look-back/counts`,
        JSON.parse(asked),
        { signal }
      ),
    placeholderData: keepPreviousData,
    staleTime: HOUR_MS
  })
  const counted = data?.counted.find((c) => c.detection === detection.id)
  if (!data || !counted || data.heardMs < HOUR_MS) return null
  const days = data.heardMs / DAY_MS
  const { count, perDay, low, high } = howOften(counted.count, days)
  const hours = counted.hours.map((classes) => classes.reduce((a, b) => a + b))
  const most = Math.max(1, ...hours)
  return (
    <div className="how-often" aria-busy={asked !== question}>
      <p>
        {days < 1
          ? msg.tooShort(count, data.heardMs / HOUR_MS)
          : msg.perDay(perDay, days, low, high)}
      </p>
      {count > 0 && (
        <div role="img" aria-label={msg.byHour} title={msg.byHour}>
          <div className="hours-chart">
            {hours.map((n, hour) => (
              <i
                key={hour}
                className={n ? undefined : 'none'}
                style={{ height: `${(100 * n) / most}%` }}
                title={msg.hour(hour, n)}
              />
            ))}
          </div>
          <div className="hours-axis figures quiet">
            <span>00</span>
            <span>06</span>
            <span>12</span>
            <span>18</span>
            <span>24</span>
          </div>
        </div>
      )}
    </div>
  )
}
