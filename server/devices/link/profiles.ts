import { child, children, type Element } from '../../../core/formats/onvif/xml.ts'

/** One picture of a device, and what it is asked for with. */
export interface LinkChannel {
  /** Of the analysis' configuration; of the video source where nothing analyses it. */
  token: string
  /** The profile of targets and snapshots. */
  profile: string
  /** The profile of live pictures. */
  picture: string
  /** The video source. */
  source: string
  /** Its sound comes with the picture. */
  microphone: boolean
  name: string
  hasAnalytics: boolean
  /** Whether it says what its analysis sees. */
  hasMetadata: boolean
}

interface Profile {
  token: string
  name: string
  source: string
  sourceName: string
  analytics: string | null
  hasMetadata: boolean
  hasSound: boolean
  width: number
  height: number
}

/** Narrower pictures do not fill their place on the screen. */
const FILLS = 640

const sizeOf = (encoder: Element | undefined): { width: number; height: number } => {
  const resolution = child(encoder, 'Resolution')
  return {
    width: Number(child(resolution, 'Width')?.text) || 0,
    height: Number(child(resolution, 'Height')?.text) || 0
  }
}

/** @param parts the configurations of a profile, by their names in Media 1 and in Media 2 */
function profileOf(
  element: Element,
  parts: {
    source?: Element
    encoder?: Element
    analytics?: Element
    metadata?: Element
    sound?: Element
  }
): Profile[] {
  const { token } = element.attributes
  const source = child(parts.source, 'SourceToken')?.text || parts.source?.attributes.token
  return token && source
    ? [
        {
          token,
          name: child(element, 'Name')?.text ?? '',
          source,
          sourceName: child(parts.source, 'Name')?.text ?? '',
          analytics: parts.analytics?.attributes.token ?? null,
          hasMetadata: parts.metadata !== undefined,
          hasSound: parts.sound !== undefined,
          ...sizeOf(parts.encoder)
        }
      ]
    : []
}

/** Profiles as Media 1 answers them. Source: ONVIF Media Service Specification (from memory). */
export const profilesOf = (answer: Element): Profile[] =>
  children(answer, 'Profiles').flatMap((profile) =>
    profileOf(profile, {
      source: child(profile, 'VideoSourceConfiguration'),
      encoder: child(profile, 'VideoEncoderConfiguration'),
      analytics: child(profile, 'VideoAnalyticsConfiguration'),
      metadata: child(profile, 'MetadataConfiguration'),
      sound: child(profile, 'AudioEncoderConfiguration')
    })
  )

/** Profiles as Media 2 answers them. Source: ONVIF Media2 Service Specification (from memory). */
export const profiles2Of = (answer: Element): Profile[] =>
  children(answer, 'Profiles').flatMap((profile) => {
    const configurations = child(profile, 'Configurations')
    return profileOf(profile, {
      source: child(configurations, 'VideoSource'),
      encoder: child(configurations, 'VideoEncoder'),
      analytics: child(configurations, 'Analytics'),
      metadata: child(configurations, 'Metadata'),
      sound: child(configurations, 'AudioEncoder')
    })
  })

/**
 * The pictures of a device, of all its profiles: one for each analysis of a video source, or one for the source where
 * nothing analyses it. Live pictures come by the profile with the fewest pixels that still fills the screen, or else by
 * the largest; a profile that does not say how large it is comes last.
 */
export function channelsOf(profiles: readonly Profile[]): LinkChannel[] {
  const bySource = new Map<string, Profile[]>()
  for (const profile of profiles)
    bySource.set(profile.source, [...(bySource.get(profile.source) ?? []), profile])
  return [...bySource.values()].flatMap((own): LinkChannel[] => {
    const pixels = (p: Profile): number => p.width * p.height
    const bySize = [...own].sort((a, b) => pixels(a) - pixels(b))
    const picture = bySize.find(({ width }) => width >= FILLS) ?? bySize.at(-1)!
    const analysed = own.filter(
      ({ analytics }, i) => analytics && own.findIndex((p) => p.analytics === analytics) === i
    )
    const microphone = own.some((p) => p.hasSound)
    const nameOf = (p: Profile): string => p.sourceName || p.name
    return analysed.length
      ? analysed.map((p) => ({
          token: p.analytics!,
          profile: p.token,
          picture: picture.token,
          source: p.source,
          microphone,
          name: nameOf(p) || p.analytics!,
          hasAnalytics: true,
          hasMetadata: p.hasMetadata
        }))
      : [
          {
            token: own[0]!.source,
            profile: picture.token,
            picture: picture.token,
            source: own[0]!.source,
            microphone,
            name: nameOf(own[0]!) || own[0]!.source,
            hasAnalytics: false,
            hasMetadata: false
          }
        ]
  })
}
