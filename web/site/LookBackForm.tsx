import { analysisWords } from '../../core/messages/analysisWords.ts'
import { lookBackForm as msg } from '../../core/messages/en/site.ts'
import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { byteSize, dateOf } from '../../core/messages/format.ts'
import './site.css'
import { Alert, Button, InputNumber, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { LookBackSettings } from '../../core/lookBack/settings.ts'
import { useLookBackSettings } from '../api/useLookBackSettings.ts'

/** What the site keeps of what its cameras report, beside how much there is now. */
export function LookBackForm({
  cameras,
  timeZone
}: {
  cameras: readonly { id: string; name: string }[]
  timeZone: string
}): ReactNode {
  const { view, save: saveSettings } = useLookBackSettings()
  const [edited, setEdited] = useState<Partial<LookBackSettings>>({})
  const [error, setError] = useState<string | null>(null)
  if (view.error && !view.data) return <Alert type="error" title={problemWords(view.error)} />
  if (!view.data) return <p className="quiet">{common.loading}</p>
  const { lookBack, version, bytes, since, most, analyses } = view.data
  const now = { ...lookBack, ...edited }
  const goes = now.without.filter((id) => !lookBack.without.includes(id))
  const save = async (): Promise<void> => {
    try {
      await saveSettings(now, version)
      setEdited({})
      setError(null)
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  return (
    <section className="look-back-form" aria-label={msg.title}>
      <h3>{msg.title}</h3>
      <p className="quiet">{msg.says}</p>
      <div className="row">
        <InputNumber
          aria-label={msg.days}
          value={now.days}
          min={1}
          max={3650}
          precision={0}
          suffix={msg.daysUnit}
          onChange={(days) => setEdited({ ...edited, days: days ?? lookBack.days })}
        />
        <InputNumber
          aria-label={msg.size}
          value={now.gigabytes}
          min={0.1}
          max={10_000}
          suffix={msg.sizeUnit}
          onChange={(size) => setEdited({ ...edited, gigabytes: size ?? lookBack.gigabytes })}
        />
        <span className="quiet figures">
          {since === null ? msg.nothing : msg.used(byteSize(bytes), dateOf(since, timeZone))}
        </span>
      </div>
      <span className="look-back-label">{msg.without}</span>
      <Select
        mode="multiple"
        aria-label={msg.without}
        placeholder={msg.none}
        value={now.without}
        onChange={(without) => setEdited({ ...edited, without })}
        options={cameras.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <span className="look-back-label">{msg.analysed}</span>
      <Select
        mode="multiple"
        aria-label={msg.analysed}
        placeholder={msg.none}
        value={now.analysed}
        onChange={(analysed) => setEdited({ ...edited, analysed })}
        options={cameras.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <p className="quiet">{msg.analysedSays(most)}</p>
      {analyses.length > 0 && (
        <ul className="analyses">
          {analyses.map((one) => (
            <li key={one.camera}>
              {cameras.find(({ id }) => id === one.camera)?.name ?? one.camera}:{' '}
              <span className="quiet">{analysisWords(one)}</span>
            </li>
          ))}
        </ul>
      )}
      {goes.length > 0 && <Alert type="warning" title={msg.goes(goes.length)} />}
      {error && <Alert type="error" title={error} />}
      <Button disabled={!Object.keys(edited).length} onClick={() => void save()}>
        {msg.save}
      </Button>
    </section>
  )
}
