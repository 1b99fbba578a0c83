import { wordsOf } from '../../messages/words.ts'
import { said } from '../../messages/said.ts'
import { DetectionSchema } from '../../formats/plan.ts'
import { ofDevice, type Check, type QuickFix } from '../facts.ts'
import { parseWith } from '../../schema/parse.ts'
import { ruleTypeOf, kindOfType } from '../../kinds/rules.ts'

export const switchesBack: Check = {
  code: 'switches-back',
  find: ({ cameras }) =>
    cameras.flatMap((camera) =>
      camera.channels
        .filter(({ used }) => used)
        .flatMap((channel) =>
          channel.switchesBack.flatMap((type) => {
            const kind = kindOfType(type)
            // One that is in use, or parked already, keeps the device quiet.
            if (!kind || camera.detections.some((d) => ruleTypeOf(d.kind) === type && d.enabled))
              return []
            const off = camera.detections.find((d) => ruleTypeOf(d.kind) === type)
            const fix: QuickFix | null = off
              ? {
                  does: 'edit',
                  words: said('readiness.park', off.name),
                  camera: camera.id,
                  detection: { ...off, enabled: true, parked: true }
                }
              : kind === 'motion' || kind === 'tamper'
                ? {
                    does: 'add',
                    words: said('readiness.parkIt'),
                    camera: camera.id,
                    detection: parseWith(DetectionSchema, {
                      id: `parked-${kind}`,
                      name:
                        kind === 'motion'
                          ? wordsOf(said('readiness.motionParked'))
                          : wordsOf(said('readiness.tamperParked')),
                      kind,
                      parked: true
                    })
                  }
                : null
            return ofDevice(
              'warning',
              channel.device,
              said('readiness.switchesBack', channel.deviceName, said(`kindNames.${kind}`)),
              fix,
              camera.id
            )
          })
        )
    )
}
