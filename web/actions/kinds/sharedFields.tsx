import { units } from '../../../core/messages/en/common.ts'
import { sharedFields as msg } from '../../../core/messages/en/actions/kinds.ts'
import { Select } from 'antd'
import type { ReactNode } from 'react'
import type { SiteActionsView } from '../../../core/api.ts'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { Field, NumberField, TextField } from '../fields.tsx'
import type { Keep } from './kind.ts'

/** Fields that several kinds share. */

const OWN = ''
export const CameraField = ({
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
        { value: OWN, label: msg.theDetectionsOwnCamera },
        ...view.site.cameras.map((c) => ({ value: c.id, label: c.name }))
      ]}
      onChange={(id: string) => onKeep(id === OWN ? null : id)}
    />
  </Field>
)

export const PictureFields = ({
  endpoint: e,
  keep
}: {
  endpoint: EndpointOf<'email' | 'snapshots'>
  keep: Keep
}): ReactNode => (
  <>
    <NumberField
      label={msg.picturesBefore}
      value={e.before}
      help={msg.n0To5}
      onKeep={(before) => keep({ before })}
    />
    <NumberField
      label={msg.picturesAfter}
      value={e.after}
      help={msg.n0To5ItWaits}
      onKeep={(after) => keep({ after })}
    />
    {(e.before > 0 || e.after > 0) && (
      <NumberField
        label={msg.oneEvery}
        unit={units.s}
        value={e.stepSeconds}
        help={msg.n05To10S}
        onKeep={(stepSeconds) => keep({ stepSeconds })}
      />
    )}
  </>
)

/** Several values, one a line or parted by commas. */
export function Lines({
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
      help={msg.severalWithCommasBetween}
      onKeep={(text) => onKeep(text.split(/[,;\s]+/).filter(Boolean))}
    />
  )
}
