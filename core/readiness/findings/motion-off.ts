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
        words: 'Switch motion on',
        camera: camera.id,
        detection: { ...known, enabled: true, parked: false }
      }
    : {
        does: 'add',
        words: 'Add motion',
        camera: camera.id,
        detection: parseWith(DetectionSchema, {
          id: `${d.id.slice(0, 56)}-motion`,
          name: 'Motion',
          kind: 'motion',
          cells: allCells()
        })
      }
  return ofDetection(
    'blocking',
    'sent',
    camera,
    d,
    `${d.name} does nothing while motion detection is off on ${channel.deviceName}.`,
    fix,
    channel.device
  )
})
