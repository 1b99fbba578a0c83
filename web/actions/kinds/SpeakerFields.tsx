import { UploadOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { Button, Select, Upload } from 'antd'
import { useState, type ReactNode } from 'react'
import type { VoiceView } from '../../../core/api.ts'
import { PHRASES, type EndpointOf, type Phrase } from '../../../core/formats/actions.ts'
import { errorOf } from '../../api/client.ts'
import { Field, NumberField } from '../fields.tsx'
import type { Keep } from './kind.ts'

/** What a speaker says, how often and how loud; a voice of one's own can be taken in. */
export function SpeakerFields({
  endpoint: e,
  voices,
  keep
}: {
  endpoint: EndpointOf<'speaker'>
  voices: readonly VoiceView[]
  keep: Keep
}): ReactNode {
  const queries = useQueryClient()
  const [error, setError] = useState<string | null>(null)
  const value = 'phrase' in e.voice ? `phrase ${e.voice.phrase}` : `file ${e.voice.file}`
  const source =
    'phrase' in e.voice ? `/api/phrases/${e.voice.phrase}` : `/api/voices/${e.voice.file}`
  const take = async (file: File): Promise<void> => {
    setError(null)
    try {
      const answer = await fetch(
        `/api/voices?name=${encodeURIComponent(file.name.replace(/\.wav$/i, ''))}`,
        { method: 'POST', headers: { 'content-type': 'audio/wav' }, body: file }
      )
      const text = await answer.text()
      if (!answer.ok) throw errorOf(answer.status, text)
      const voice = JSON.parse(text) as VoiceView
      await queries.invalidateQueries({ queryKey: ['actions'] })
      keep({ voice: { file: voice.id } }, `Voice of ${e.name}`)
    } catch (problem) {
      setError(`${file.name}: ${(problem as Error).message}`)
    }
  }
  const says = (text: string): EndpointOf<'speaker'>['voice'] =>
    text.startsWith('phrase ') ? { phrase: text.slice(7) as Phrase } : { file: text.slice(5) }
  return (
    <>
      <Field label="Says">
        <Select
          size="small"
          aria-label="Says"
          value={value}
          options={[
            {
              label: 'Shipped phrases',
              options: Object.entries(PHRASES).map(([id, words]) => ({
                value: `phrase ${id}`,
                label: words
              }))
            },
            ...(voices.length
              ? [
                  {
                    label: 'Own files',
                    options: voices.map((v) => ({
                      value: `file ${v.id}`,
                      label: `${v.name} (${v.seconds.toFixed(1)} s)`
                    }))
                  }
                ]
              : [])
          ]}
          onChange={(text: string) => keep({ voice: says(text) }, `Voice of ${e.name}`)}
        />
        <audio key={source} controls preload="none" src={source} aria-label="Hear it" />
        <Upload
          accept=".wav,audio/wav"
          showUploadList={false}
          beforeUpload={(file) => (void take(file), false)}
        >
          <Button size="small" icon={<UploadOutlined />}>
            Own file …
          </Button>
        </Upload>
        <span className="quiet field-help">WAVE, mono, 8 kHz, at most 512 KB</span>
        {error && (
          <span className="field-error" role="alert">
            {error}
          </span>
        )}
      </Field>
      <NumberField
        label="Times"
        value={e.repeats}
        help="1 to 50"
        onKeep={(repeats) => keep({ repeats })}
      />
      <NumberField
        label="Volume"
        unit="%"
        value={e.volume}
        help="1 to 100 %"
        onKeep={(volume) => keep({ volume })}
      />
    </>
  )
}
