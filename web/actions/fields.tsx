import { fields as msg } from '../../core/messages/en/actions/actions.ts'
import { Input } from 'antd'
import { useState, type ReactNode } from 'react'

/** A number that is typed; one out of range is refused with the range, never cut. */
export function NumberField({
  label,
  value,
  unit,
  help,
  onKeep
}: {
  label: string
  value: number
  unit?: string
  help?: string
  onKeep: (value: number) => string | null
}): ReactNode {
  return (
    <TextField
      key={value}
      label={label}
      value={String(value)}
      unit={unit}
      help={help}
      short
      onKeep={(text) =>
        /^-?\d+([.,]\d+)?$/.test(text.trim())
          ? onKeep(Number(text.replace(',', '.')))
          : msg.isNotA(text.slice(0, 20))
      }
    />
  )
}

/** A text that is kept when the field is left; what cannot be kept stays, with what would be right. */
export function TextField({
  label,
  value,
  unit,
  help,
  placeholder,
  short = false,
  password = false,
  onKeep
}: {
  label: string
  value: string
  unit?: string
  help?: string
  placeholder?: string
  short?: boolean
  password?: boolean
  onKeep: (text: string) => string | null
}): ReactNode {
  const [text, setText] = useState(value)
  const [error, setError] = useState<string | null>(null)
  const keep = (): void => {
    if (text !== value || error) setError(onKeep(text))
  }
  return (
    <label className="field">
      <span className="field-name">{label}</span>
      <Input
        className={short ? 'short' : ''}
        type={password ? 'password' : 'text'}
        autoComplete={password ? 'new-password' : 'off'}
        size="small"
        value={text}
        suffix={unit}
        placeholder={placeholder}
        status={error ? 'error' : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onPressEnter={keep}
      />
      {help && !error && <span className="quiet field-help">{help}</span>}
      {error && (
        <span className="field-error" role="alert">
          {error}
        </span>
      )}
    </label>
  )
}

/** What a choice is called, above it. */
export const Field = ({ label, children }: { label: string; children: ReactNode }): ReactNode => (
  <div className="field">
    <span className="field-name">{label}</span>
    {children}
  </div>
)
