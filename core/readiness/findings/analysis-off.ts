import { RULE_TYPES } from '../../formats/onvif/abilities.ts'
import { ofDetection, perDetection } from '../facts.ts'

/** The most common mistake of the trade: what is drawn does nothing while the wrong family runs. */
export const analysisOff = perDetection('analysis-off', (d, camera) =>
  camera.channels.filter((c) => c.used && c.abilities.some(({ type }) => type === RULE_TYPES[d.kind])).flatMap((channel) => {
    const mode = channel.modes.find(({ runs }) => runs.includes(RULE_TYPES[d.kind]!))
    if (!mode || mode.running) return []
    const running = channel.modes.find((m) => m.running)
    const name = (type: string): string => type.replace(/^\w+:/, '')
    return ofDetection('analysis-off', 'blocking', 'sent', camera, d, `${d.name} does nothing on ${channel.deviceName}: ${running ? `its analysis runs ${name(running.type)}` : 'no analysis runs on it'}, and this kind needs ${name(mode.type)}.`, { does: 'mode', words: `Switch to ${name(mode.type)}`, device: channel.device, channel: channel.token, type: mode.type }, channel.device)
  })
)
