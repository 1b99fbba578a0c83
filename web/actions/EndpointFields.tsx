import { SoundOutlined, UploadOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { Button, Radio, Select, Upload } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SiteActionsView, VoiceView } from '../../core/api.ts'
import {
  PHRASES,
  POPUP_SOUNDS,
  RELAY_MODES,
  STROBE_PATTERNS,
  type Endpoint,
  type EndpointOf,
  type Phrase
} from '../../core/formats/actions.ts'
import { errorOf } from '../api/client.ts'
import { playSound } from '../alarms/sounds.ts'
import type { SiteState } from '../kept/siteDocument.ts'
import { Field, NumberField, TextField } from './fields.tsx'
import { SEVERITIES } from '../../core/kinds/parts.ts'

type Keep = (change: Partial<Endpoint>, label?: string) => string | null

const relayWords: Record<(typeof RELAY_MODES)[number], string> = {
  pulse: 'closes for some seconds',
  follow: 'stays closed while triggers go on',
  untilAcknowledged: 'stays closed until the alarm is acknowledged'
}
const soundWords: Record<(typeof POPUP_SOUNDS)[number], string> = {
  none: 'silent',
  chime: 'a chime',
  alarm: 'an alarm tone'
}

/** The settings that the kind has. */
export function EndpointFields({
  endpoint: e,
  view,
  state,
  keep
}: {
  endpoint: Endpoint
  view: SiteActionsView
  state: SiteState
  keep: Keep
}): ReactNode {
  switch (e.kind) {
    case 'strobe':
      return (
        <>
          <NumberField
            label="Flashes for"
            unit="s"
            value={e.seconds}
            help="1 to 60 s"
            onKeep={(seconds) => keep({ seconds })}
          />
          <Field label="How">
            <Radio.Group
              size="small"
              optionType="button"
              aria-label="How it flashes"
              value={e.pattern}
              options={STROBE_PATTERNS.map((value) => ({ value, label: value }))}
              onChange={(x) => keep({ pattern: x.target.value })}
            />
          </Field>
        </>
      )
    case 'speaker':
      return <SpeakerFields endpoint={e} voices={view.voices} keep={keep} />
    case 'relay':
      return (
        <>
          <Field label="The relay">
            <Select
              size="small"
              aria-label="The relay"
              value={e.mode}
              options={RELAY_MODES.map((value) => ({ value, label: relayWords[value] }))}
              onChange={(mode) => keep({ mode })}
            />
          </Field>
          {e.mode !== 'untilAcknowledged' && (
            <NumberField
              label={e.mode === 'pulse' ? 'Closed for' : 'Opens after the last trigger by'}
              unit="s"
              value={e.seconds}
              help="1 to 600 s"
              onKeep={(seconds) => keep({ seconds })}
            />
          )}
        </>
      )
    case 'buzzer':
      return (
        <NumberField
          label="Sounds for"
          unit="s"
          value={e.seconds}
          help="1 to 60 s"
          onKeep={(seconds) => keep({ seconds })}
        />
      )
    case 'email':
      return (
        <>
          <Lines
            key={`to ${e.recipients.join()}`}
            label="To"
            values={e.recipients}
            placeholder="duty@example.org"
            onKeep={(recipients) => keep({ recipients }, `Recipients of ${e.name}`)}
          />
          <Field label="And to people of the site">
            <Select
              size="small"
              mode="multiple"
              aria-label="And to people of the site"
              placeholder="nobody"
              value={e.people}
              options={whoOptions(state)}
              onChange={(people: string[]) => keep({ people }, `Recipients of ${e.name}`)}
            />
          </Field>
          <PictureFields endpoint={e} keep={keep} />
        </>
      )
    case 'station': {
      const beat = view.stations[e.id]
      return (
        <>
          <TextField
            key={`host ${e.host}`}
            label="Address"
            value={e.host}
            help="stand-in: the one that ships with Wardoptic"
            onKeep={(host) => keep({ host })}
          />
          <NumberField label="Port" value={e.port} onKeep={(port) => keep({ port })} />
          <TextField
            key={`account ${e.account}`}
            label="Account"
            value={e.account}
            short
            help="3 to 16 hexadecimal digits (SIA DC-09)"
            onKeep={(account) => keep({ account })}
          />
          <Field label="It accepts from">
            <Select
              size="small"
              aria-label="It accepts from"
              value={e.accepts}
              options={SEVERITIES.map((value) => ({ value, label: value }))}
              onChange={(accepts) => keep({ accepts })}
            />
          </Field>
          <NumberField
            label="Heartbeat every"
            unit="s"
            value={e.heartbeatSeconds}
            help="10 to 86400 s; 0: none"
            onKeep={(heartbeatSeconds) => keep({ heartbeatSeconds })}
          />
          {beat && (
            <p className={beat.error ? 'failed' : 'quiet'}>
              {beat.error
                ? `✕ heartbeat: ${beat.error}`
                : `✓ heartbeat answered ${new Date(beat.answeredAt!).toLocaleTimeString('en-GB')}`}
            </p>
          )}
        </>
      )
    }
    case 'webhook':
      return (
        <TextField
          key={`url ${e.url}`}
          label="Address"
          value={e.url}
          help="The alarm is posted there as JSON, with an Idempotency-Key"
          onKeep={(url) => keep({ url })}
        />
      )
    case 'popup':
      return (
        <Field label="With">
          <span className="row">
            <Select
              size="small"
              aria-label="With"
              value={e.sound}
              options={POPUP_SOUNDS.map((value) => ({ value, label: soundWords[value] }))}
              onChange={(sound) => keep({ sound })}
            />
            <Button
              size="small"
              aria-label="Hear it"
              icon={<SoundOutlined />}
              disabled={e.sound === 'none'}
              onClick={() => playSound(e.sound)}
            />
          </span>
        </Field>
      )
    case 'recording':
      return (
        <>
          <CameraField
            label="Of"
            value={e.camera}
            view={view}
            onKeep={(camera) => keep({ camera })}
          />
          <NumberField
            label="Before the trigger"
            unit="s"
            value={e.beforeSeconds}
            help="0 to 60 s"
            onKeep={(beforeSeconds) => keep({ beforeSeconds })}
          />
          <NumberField
            label="After it"
            unit="s"
            value={e.afterSeconds}
            help="1 to 600 s"
            onKeep={(afterSeconds) => keep({ afterSeconds })}
          />
        </>
      )
    case 'snapshots':
      return (
        <>
          <CameraField
            label="Of"
            value={e.camera}
            view={view}
            onKeep={(camera) => keep({ camera })}
          />
          <PictureFields endpoint={e} keep={keep} />
        </>
      )
  }
}

const OWN = ''
const CameraField = ({
  label,
  value,
  view,
  onKeep
}: {
  label: string
  value: string | null
  view: SiteActionsView
  onKeep: (camera: string | null) => void
}): ReactNode => (
  <Field label={label}>
    <Select
      size="small"
      aria-label={label}
      value={value ?? OWN}
      options={[
        { value: OWN, label: 'the detection’s own camera' },
        ...view.site.cameras.map((c) => ({ value: c.id, label: c.name }))
      ]}
      onChange={(id: string) => onKeep(id === OWN ? null : id)}
    />
  </Field>
)

const PictureFields = ({
  endpoint: e,
  keep
}: {
  endpoint: EndpointOf<'email' | 'snapshots'>
  keep: Keep
}): ReactNode => (
  <>
    <NumberField
      label="Pictures before"
      value={e.before}
      help="0 to 5"
      onKeep={(before) => keep({ before })}
    />
    <NumberField
      label="Pictures after"
      value={e.after}
      help="0 to 5; it waits for them"
      onKeep={(after) => keep({ after })}
    />
    {(e.before > 0 || e.after > 0) && (
      <NumberField
        label="One every"
        unit="s"
        value={e.stepSeconds}
        help="0.5 to 10 s"
        onKeep={(stepSeconds) => keep({ stepSeconds })}
      />
    )}
  </>
)

/** People and groups to choose from. */
export const whoOptions = ({
  people
}: Pick<SiteState, 'people'>): { value: string; label: string }[] => [
  ...people.groups.map((g) => ({ value: g.id, label: `${g.name} (${g.members.length})` })),
  ...people.people.map((p) => ({ value: p.id, label: p.name }))
]

/** Several values, one a line or parted by commas. */
function Lines({
  label,
  values,
  placeholder,
  onKeep
}: {
  label: string
  values: readonly string[]
  placeholder: string
  onKeep: (values: string[]) => string | null
}): ReactNode {
  return (
    <TextField
      label={label}
      value={values.join(', ')}
      placeholder={placeholder}
      help="several with commas between"
      onKeep={(text) => onKeep(text.split(/[,;\s]+/).filter(Boolean))}
    />
  )
}

function SpeakerFields({
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
