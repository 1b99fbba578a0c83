import { said } from '../../messages/said.ts'
import { routesOf, isRule } from '../deviceRoutes.ts'
import { inUse, ofDevice, type Check } from '../facts.ts'
import { ruleTypeOf } from '../../kinds/rules.ts'

export const recorderFull: Check = {
  code: 'recorder-full',
  find: ({ cameras, recorders, schedules }) => {
    const analysing = recorders.filter(({ abilities }) => abilities.length > 0)
    if (!analysing.length || analysing.some(({ camera }) => camera === null)) return []
    const types = new Set(analysing.flatMap(({ abilities }) => abilities.map(({ type }) => type)))
    return cameras.flatMap((camera) => {
      const waiting = inUse(camera).filter(
        (d) => isRule(d) && types.has(ruleTypeOf(d.kind)!) && !routesOf(camera, d, schedules).length
      )
      const onRecorder = camera.channels.some((c) =>
        analysing.some((a) => a.device === c.device && a.token === c.token)
      )
      return waiting.length && !onRecorder
        ? ofDevice(
            'blocking',
            analysing[0]!.device,
            said(
              'readiness.recorderFull',
              camera.name,
              analysing[0]!.deviceName,
              waiting.map(({ name }) => name).join(', '),
              analysing.length
            ),
            null,
            camera.id
          )
        : []
    })
  }
}
