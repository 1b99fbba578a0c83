import { said } from '../../messages/said.ts'
import { localName } from '../../formats/onvif/rule.ts'
import { ofDetection, perDetection } from '../facts.ts'
import { ruleTypeOf } from '../../kinds/rules.ts'

/** The most common mistake in the trade: while the wrong family runs, what is drawn does nothing. */
export const analysisOff = perDetection('analysis-off', (d, camera) =>
  camera.channels
    .filter((c) => c.used && c.abilities.some(({ type }) => type === ruleTypeOf(d.kind)))
    .flatMap((channel) => {
      const mode = channel.modes.find(({ runs }) => runs.includes(ruleTypeOf(d.kind)!))
      if (!mode || mode.running) return []
      const running = channel.modes.find((m) => m.running)
      return ofDetection(
        'blocking',
        'sent',
        camera,
        d,
        said(
          'readiness.analysisOff',
          d.name,
          channel.deviceName,
          running ? localName(running.type) : null,
          localName(mode.type)
        ),
        {
          does: 'mode',
          words: said('readiness.switchTo', localName(mode.type)),
          device: channel.device,
          channel: channel.token,
          type: mode.type
        },
        channel.device
      )
    })
)
