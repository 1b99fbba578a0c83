import { Button, Checkbox } from 'antd'
import type { ReactNode } from 'react'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { keyOf, type SiteDocument, type SiteState } from '../sync/siteDocument.ts'
import { byKind } from './kinds.ts'
import { AlarmFields, keepActions } from './AlarmPanel.tsx'

/** What detections set off unless something else is wanted: one click gives it to those that set nothing off. */
export function UsualPanel({
  state,
  document
}: {
  state: SiteState
  document: SiteDocument
}): ReactNode {
  const usual = state.usual ?? NO_ACTIONS
  const without = state.detections.filter(
    (d) => d.detection.enabled && document.actionsOf(keyOf(d)).links.length === 0
  )
  return (
    <article className="action-panel" aria-label="Usual actions">
      <h2>Usual actions of the site</h2>
      <p className="quiet">
        Given to a detection with one click; what a detection has already does not change.
      </p>
      <div className="stacked">
        {[...state.endpoints].sort(byKind).map((e) => (
          <Checkbox
            key={e.id}
            checked={usual.links.includes(e.id)}
            onChange={(x) =>
              document.edit('Usual actions', [
                'usual:',
                {
                  ...usual,
                  links: x.target.checked
                    ? [...usual.links, e.id]
                    : usual.links.filter((l) => l !== e.id)
                }
              ])
            }
          >
            {e.name}
          </Checkbox>
        ))}
      </div>
      <AlarmFields
        actions={usual}
        state={state}
        onKeep={(change, label) =>
          keepActions(usual, change, (next) =>
            document.edit(`${label} of the usual actions`, ['usual:', next])
          )
        }
      />
      <Button
        disabled={!state.usual?.links.length || !without.length}
        onClick={() =>
          document.setActions(
            without.map(keyOf),
            () => state.usual!,
            `Usual actions for ${without.length} detections`
          )
        }
      >
        {without.length
          ? `Give them to ${without.length} that set nothing off`
          : 'Every detection sets something off'}
      </Button>
      <p className="quiet matrix-legend">
        <span className="crossing whole" aria-hidden="true">
          ✓
        </span>{' '}
        acts in all of the armed hours{' '}
        <span className="crossing part" aria-hidden="true">
          <i style={{ width: '50%' }} />
          <span>50 %</span>
        </span>{' '}
        in a part of them{' '}
        <span className="crossing never" aria-hidden="true">
          ✕
        </span>{' '}
        never
      </p>
      <p className="quiet">
        Click a crossing to link it; drag, or hold Shift, for a block. Choose a name to set it up.
      </p>
    </article>
  )
}
