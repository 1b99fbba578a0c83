import type { Endpoint, EndpointKind } from '../../core/formats/actions.ts'

export const kindWords: Record<
  EndpointKind,
  { name: string; glyph: string; group: 'Outputs' | 'Messages' | 'Records' }
> = {
  strobe: { name: 'Strobe', glyph: '✺', group: 'Outputs' },
  speaker: { name: 'Speaker', glyph: '◖', group: 'Outputs' },
  relay: { name: 'Relay', glyph: '⇄', group: 'Outputs' },
  buzzer: { name: 'Buzzer', glyph: '♪', group: 'Outputs' },
  email: { name: 'E-mail', glyph: '✉', group: 'Messages' },
  station: { name: 'Monitoring station', glyph: '⌂', group: 'Messages' },
  webhook: { name: 'Webhook', glyph: '↗', group: 'Messages' },
  popup: { name: 'Pop-up', glyph: '▣', group: 'Messages' },
  recording: { name: 'Recording', glyph: '◉', group: 'Records' },
  snapshots: { name: 'Snapshots', glyph: '▤', group: 'Records' }
}

/** Outputs, then messages, then records; within a kind by name. */
export const byKind = (a: Endpoint, b: Endpoint): number =>
  KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) || a.name.localeCompare(b.name)
const KINDS = Object.keys(kindWords)

export const timeOf = (at: number): string => new Date(at).toLocaleTimeString('en-GB')
export const dayAndTime = (at: number): string =>
  new Date(at).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit'
  })
