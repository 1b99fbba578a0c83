import { detectionRail as msg } from '../../core/messages/en/prove/prove.ts'
import type { ReactNode } from 'react'
import type { SiteActionsView } from '../../core/api.ts'
import type { ProvingView } from '../../core/proving/views.ts'

interface Props {
  view: ProvingView
  detections: SiteActionsView['detections']
  chosen: SiteActionsView['detections'][number]
  onChoose: (camera: string, detection: string) => void
}

/** The site's detections by camera, each with how far it is proven. */
export function DetectionRail({ view, detections, chosen, onChoose }: Props): ReactNode {
  const cameras = [...new Map(detections.map((d) => [d.camera, d.cameraName]))]
  return (
    <nav className="prove-rail" aria-label={msg.detections}>
      {cameras.map(([camera, name]) => (
        <section key={camera}>
          <h3>{name}</h3>
          <ul>
            {detections
              .filter((d) => d.camera === camera)
              .map((d) => {
                const state = stateOf(view, camera, d.detection.id)
                return (
                  <li key={d.detection.id}>
                    <button
                      type="button"
                      className={d === chosen ? 'chosen' : ''}
                      aria-current={d === chosen}
                      onClick={() => onChoose(camera, d.detection.id)}
                    >
                      <span className={`proof-mark ${state.mark}`} aria-hidden="true" />
                      <span>{d.detection.name}</span>
                      <small className="figures">{state.words}</small>
                    </button>
                  </li>
                )
              })}
          </ul>
        </section>
      ))}
    </nav>
  )
}

function stateOf(
  view: ProvingView,
  camera: string,
  detection: string
): { mark: 'done' | 'failed' | 'open' | 'empty'; words: string } {
  const own = view.checks.filter((c) => c.camera === camera && c.check.detection === detection)
  const proposed = view.proposals.filter(
    (p) => p.camera === camera && p.check.detection === detection && p.replaces === null
  ).length
  if (!own.length) return { mark: 'empty', words: proposed ? msg.proposed(proposed) : msg.noCheck }
  const passed = own.filter((c) => c.last?.current && c.last.passed).length
  const failed = own.filter((c) => c.last?.current && !c.last.passed).length
  return {
    mark: failed ? 'failed' : passed === own.length ? 'done' : passed ? 'open' : 'empty',
    words: msg.of(passed, own.length)
  }
}
