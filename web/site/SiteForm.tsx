import { siteForm as msg, surroundings as surroundingNames } from '../../core/messages/en/site.ts'
import './site.css'
import { Input, InputNumber, Radio, Select } from 'antd'
import { useMemo, type ReactNode } from 'react'
import { places } from '../../core/sites/places.ts'
import type { SiteSettings } from '../../core/sites/settings.ts'
import { SURROUNDINGS, type Surroundings } from '../../core/sites/surroundings.ts'

const zones = Intl.supportedValuesOf('timeZone').map((value) => ({ value, label: value }))
/** Degrees either way. */
const FARTHEST = { latitude: 90, longitude: 180 } as const
const asRound = (value: number): number => Math.round(value * 1000) / 1000

/** What a site is called, and where it is; a place near it sets both its time zone and its position. */
export function SiteForm({
  value,
  onChange
}: {
  value: SiteSettings
  onChange: (value: SiteSettings) => void
}): ReactNode {
  const near = useMemo(() => {
    const countries = new Intl.DisplayNames('en', { type: 'region' })
    return places
      .map((place) => ({
        value: place.timeZone,
        label: msg.placeIn(place.name, countries.of(place.country) ?? place.country)
      }))
      .sort((a, b) => a.label.localeCompare(b.label))
  }, [])
  const choose = (timeZone: string): void => {
    const place = places.find((p) => p.timeZone === timeZone)
    if (!place) return
    const { latitude, longitude } = place
    onChange({ ...value, timeZone, position: { latitude, longitude } })
  }
  const at = value.position
  const chosen = places.find(
    (p) =>
      p.timeZone === value.timeZone && p.latitude === at?.latitude && p.longitude === at.longitude
  )
  const move = (change: Partial<{ latitude: number | null; longitude: number | null }>): void => {
    const { latitude, longitude } = { latitude: null, longitude: null, ...at, ...change }
    // Half a position is none; the other half is typed next.
    onChange({
      ...value,
      position:
        latitude === null && longitude === null
          ? null
          : { latitude: latitude ?? 0, longitude: longitude ?? 0 }
    })
  }
  return (
    <div className="site-form">
      <label className="field">
        <span className="field-name">{msg.siteName}</span>
        <Input
          autoFocus
          value={value.name}
          maxLength={80}
          onChange={(e) => onChange({ ...value, name: e.target.value })}
        />
      </label>
      <label className="field">
        <span className="field-name">{msg.nearestPlace}</span>
        <Select
          showSearch={{ optionFilterProp: 'label' }}
          aria-label={msg.nearestPlace}
          placeholder={msg.selectAPlace}
          value={chosen?.timeZone ?? null}
          options={near}
          onChange={choose}
        />
        <span className="quiet">{msg.placeSets}</span>
      </label>
      <label className="field">
        <span className="field-name">{msg.timeZone}</span>
        <Select
          showSearch
          aria-label={msg.timeZone}
          value={value.timeZone}
          options={zones}
          onChange={(timeZone) => onChange({ ...value, timeZone })}
        />
      </label>
      <div className="site-position">
        {(['latitude', 'longitude'] as const).map((axis) => (
          <label key={axis} className="field">
            <span className="field-name">{msg[axis]}</span>
            <InputNumber
              min={-FARTHEST[axis]}
              max={FARTHEST[axis]}
              step={0.01}
              suffix="°"
              value={at ? asRound(at[axis]) : null}
              onChange={(degrees) => move({ [axis]: degrees })}
            />
          </label>
        ))}
        <p className="quiet">{msg.positionIsFor}</p>
      </div>
      <div className="field">
        <span className="field-name">{msg.surroundings}</span>
        <Radio.Group
          aria-label={msg.surroundings}
          value={value.surroundings}
          options={SURROUNDINGS.map((value) => ({ value, label: surroundingNames[value] }))}
          onChange={(e) => onChange({ ...value, surroundings: e.target.value as Surroundings })}
        />
      </div>
    </div>
  )
}

/** Names of its fields, as an error tells them. */
export const siteFields: Readonly<Record<string, string>> = {
  name: msg.siteName,
  timeZone: msg.timeZone,
  position: msg.nearestPlace,
  latitude: msg.latitude,
  longitude: msg.longitude,
  surroundings: msg.surroundings
}
