import { said } from '../../messages/said.ts'
import { severityOf } from '../../kinds/schemas.ts'
import { actionsOf, edit, linksOf, ofDetection, perDetection } from '../facts.ts'
import { SEVERITIES } from '../../kinds/parts.ts'

export const severityNotAccepted = perDetection('severity-not-accepted', (d, camera, facts) =>
  linksOf(camera, d, facts).flatMap(({ endpoint }) => {
    if (!('accepts' in endpoint)) return []
    const actions = actionsOf(camera, d)
    const severity = severityOf(d, actions.severity)
    if (SEVERITIES.indexOf(severity) >= SEVERITIES.indexOf(endpoint.accepts)) return []
    const label = said('readiness.setSeverity', said(`severities.${endpoint.accepts}`))
    const fix =
      'severity' in d
        ? edit(camera, { ...d, severity: endpoint.accepts }, label)
        : ({
            does: 'actions',
            words: label,
            camera: camera.id,
            detection: d.id,
            actions: { ...actions, severity: endpoint.accepts }
          } as const)
    return ofDetection(
      'blocking',
      'linked',
      camera,
      d,
      said(
        'readiness.severityTooLow',
        endpoint.name,
        d.name,
        said(`severities.${severity}`),
        said(`severities.${endpoint.accepts}`)
      ),
      fix
    )
  })
)
