import { wordsOf } from '../../messages/words.ts'
import { said } from '../../messages/said.ts'
import { DetectionSchema } from '../../formats/plan.ts'
import { inUse, ofDetection, perDetection, type QuickFix } from '../facts.ts'
import { allCells } from '../../kinds/parts.ts'
import { parseWith } from '../../schema/parse.ts'
import { ruleTypeOf } from '../../kinds/rules.ts'

export const motionOff = perDetection('motion-off', (d, camera) => {
  if (d.kind !== 'classMotion') return []
  const channel = camera.channels.find(
    (c) => c.used && c.abilities.some(({ type }) => type === ruleTypeOf('classMotion'))
  )
  if (!channel || inUse(camera).some(({ kind }) => kind === 'motion')) return []
  const known = camera.detections.find(({ kind }) => kind === 'motion')
  const fix: QuickFix = known
    ? {
        does: 'edit',
        words: said('readiness.switchMotionOn'),
        camera: camera.id,
        detection: { ...known, enabled: true, parked: false }
      }
    : {
        does: 'add',
        words: said('readiness.addMotion'),
        camera: camera.id,
        detection: parseWith(DetectionSchema, {
          id: `${d.id.slice(0, 56)}-motion`,
          name: wordsOf(said('readiness.motion')),
          kind: 'motion',
          cells: allCells()
        })
      }
  return ofDetection(
    'blocking',
    'sent',
    camera,
    d,
    said('readiness.motionOff', d.name, channel.deviceName),
    fix,
    channel.device
  )
})
