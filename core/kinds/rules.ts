import { classMotionRule } from './classMotion/rule.ts'
import { entryRule } from './entry/rule.ts'
import { exitRule } from './exit/rule.ts'
import { faceRule } from './face/rule.ts'
import { intrusionRule } from './intrusion/rule.ts'
import { lineRule } from './line/rule.ts'
import { loiteringRule } from './loitering/rule.ts'
import { motionRule } from './motion/rule.ts'
import type { RuleOf } from './rule.ts'
import type { Detection, DetectionKind } from './schemas.ts'
import { tamperRule } from './tamper/rule.ts'

/** How each kind is translated; null: no rule of video analytics, but the device’s own input or link. */
const rules: { [K in DetectionKind]: RuleOf<Extract<Detection, { kind: K }>> | null } = {
  line: lineRule,
  intrusion: intrusionRule,
  entry: entryRule,
  exit: exitRule,
  loitering: loiteringRule,
  motion: motionRule,
  classMotion: classMotionRule,
  tamper: tamperRule,
  signalLoss: null,
  contact: null,
  face: faceRule
}

/** How detections of a kind are translated, for a detection of whatever kind; null: they are no rule. */
export const ruleOf = (kind: DetectionKind): RuleOf<Detection> | null =>
  rules[kind] as unknown as RuleOf<Detection> | null

/** The type of rule that a kind is on a device; undefined for those that are none. */
export const ruleTypeOf = (kind: DetectionKind): string | undefined => rules[kind]?.type

const kindsByType = new Map(
  (Object.keys(rules) as DetectionKind[]).flatMap((kind) => {
    const type = ruleTypeOf(kind)
    return type === undefined ? [] : [[type, kind] as const]
  })
)

export const kindOfType = (type: string): DetectionKind | undefined => kindsByType.get(type)

/** A type as it is named here, whatever prefix a device gives the namespace. */
export function ruleType(name: string): string {
  const local = name.replace(/^[^:]*:/, '')
  return kindsByType.has(`wo:${local}`) ? `wo:${local}` : `tt:${local}`
}
