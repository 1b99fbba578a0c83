import { atSite } from '../../api/here.ts'
import { seconds } from '../../../core/messages/format.ts'
import { said } from '../../../core/messages/said.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { phrases, speakerFields as msg } from '../../../core/messages/en/actions/kinds.ts'
import { UploadOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { Button, Select, Upload } from 'antd'
import { useState, type ReactNode } from 'react'
import type { VoiceView } from '../../../core/api.ts'
import { PHRASES, type EndpointOf, type Phrase } from '../../../core/formats/actions.ts'
import { sendFile } from '../../api/client.ts'
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
  const source = atSite(
    'phrase' in e.voice ? `/phrases/${e.voice.phrase}` : `/voices/${e.voice.file}`
  )
  const take = async (file: File): Promise<void> => {
    setError(null)
    try {
      const voice = await sendFile<VoiceView>(
        `/voices?name=${encodeURIComponent(file.name.replace(/\.wav$/i, ''))}`,
        file,
        'audio/wav'
      )
      await queries.invalidateQueries({ queryKey: ['actions'] })
      keep({ voice: { file: voice.id } }, said('edits.voiceOf', e.name))
    } catch (problem) {
      setError(`${file.name}: ${problemWords(problem)}`)
    }
  }
  const says = (text: string): EndpointOf<'speaker'>['voice'] =>
    text.startsWith('phrase ') ? { phrase: text.slice(7) as Phrase } : { file: text.slice(5) }
  return (
    <>
      <Field label={msg.message}>
        <Select
          size="small"
          aria-label={msg.message}
          value={value}
          options={[
            {
              label: msg.phrases,
              options: PHRASES.map((id) => ({
                value: `phrase ${id}`,
                label: phrases[id]
              }))
            },
            ...(voices.length
              ? [
                  {
                    label: msg.ownFiles,
                    options: voices.map((v) => ({
                      value: `file ${v.id}`,
                      label: msg.fileOf(v.name, seconds(v.seconds))
                    }))
                  }
                ]
              : [])
          ]}
          onChange={(text: string) => keep({ voice: says(text) }, said('edits.voiceOf', e.name))}
        />
        <audio key={source} controls preload="none" src={source} aria-label={msg.play} />
        <Upload
          accept=".wav,audio/wav"
          showUploadList={false}
          beforeUpload={(file) => (void take(file), false)}
        >
          <Button size="small" icon={<UploadOutlined aria-hidden />}>
            {msg.addFile}
          </Button>
        </Upload>
        <span className="quiet field-help">{msg.waveMono8KhzAt}</span>
        {error && (
          <span className="field-error" role="alert">
            {error}
          </span>
        )}
      </Field>
      <NumberField
        label={msg.times}
        value={e.repeats}
        help={msg.n1To50}
        onKeep={(repeats) => keep({ repeats })}
      />
      <NumberField
        label={msg.volume}
        unit="%"
        value={e.volume}
        help={msg.n1To100}
        onKeep={(volume) => keep({ volume })}
      />
    </>
  )
}
