import { spansText as msg } from '../messages/en/arming.ts'
import { isSpanEnd } from '../formats/spanEnd.ts'
import type { Schedule } from '../formats/plan.ts'

type Spans = Schedule['week']['mon']

export const spansText = (spans: Spans): string =>
  spans.map(([from, to]) => msg.to(from, to)).join(', ')

/** `6:30` as `06:30`, so that people may type it. */
const padded = (text: string): string => (/^\d:\d\d$/.test(text) ? `0${text}` : text)

/** Reads `00:00 to 06:30, 18:30–24:00`; a text says what is wrong. */
export function readSpans(text: string): Spans | string {
  const spans: [string, string][] = []
  for (const part of text
    .split(/[,;]/)
    .map((p) => p.trim())
    .filter(Boolean)) {
    const m =
      /^(\S+)\s+(?:to|-|–)\s+(\S+)$/i.exec(part) ??
      /^([\d:]+)[-–]([\d:]+)$/.exec(part) ??
      /^(\S+)–(\S+)$/.exec(part)
    if (!m) return msg.isNoSpan(part.slice(0, 30))
    const [from, to] = [padded(m[1]!), padded(m[2]!)]
    for (const end of [from, to]) if (!isSpanEnd(end)) return msg.isNoTime(end.slice(0, 20))
    spans.push([from, to])
  }
  return spans
}
