import { severityOf } from '../../kinds/schemas.ts'
import { actionsOf, edit, linksOf, ofDetection, perDetection } from '../facts.ts'
import { SEVERITIES } from '../../kinds/parts.ts'

export const severityNotAccepted = perDetection('severity-not-accepted', (d, camera, facts) =>
  linksOf(camera, d, facts).flatMap(({ endpoint }) => {
    if (!('accepts' in endpoint)) return []
    const actions = actionsOf(camera, d)
    const severity = severityOf(d, actions.severity)
    if (SEVERITIES.indexOf(severity) >= SEVERITIES.indexOf(endpoint.accepts)) return []
    const words = `Make it ${endpoint.accepts}`
    const fix =
      'severity' in d
        ? edit(camera, { ...d, severity: endpoint.accepts }, words)
        : ({
            does: 'actions',
            words,
            camera: camera.id,
            detection: d.id,
            actions: { ...actions, severity: endpoint.accepts }
          } as const)
    return ofDetection(
      'blocking',
      'linked',
      camera,
      d,
      `${endpoint.name} does not take alarms of ${d.name}: they are ${severity}, and it accepts from ${endpoint.accepts} up.`,
      fix
    )
  })
)
