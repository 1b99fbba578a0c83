import rows from './places.json' with { type: 'json' }

/** A place that a site can be near: the chief one of a time zone. */
export interface Place {
  /** ISO 3166 code of the country. */
  country: string
  /** Of the IANA time zone database, such as Europe/London. */
  timeZone: string
  name: string
  latitude: number
  longitude: number
}

/** By time zone. Source: zone.tab of the IANA time zone database (public domain), positions to a minute of arc. */
export const places: readonly Place[] = (rows as [string, string, number, number][]).map(
  ([country, timeZone, latitude, longitude]) => ({
    country,
    timeZone,
    name: timeZone.slice(timeZone.lastIndexOf('/') + 1).replaceAll('_', ' '),
    latitude,
    longitude
  })
)
