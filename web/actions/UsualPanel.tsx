import { said } from '../../core/messages/said.ts'
import { usualPanel as msg } from '../../core/messages/en/actions/actions.ts'
import { Button, Checkbox } from 'antd'
import type { ReactNode } from 'react'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { keyOf, type SiteDocument, type SiteState } from '../sync/siteDocument.ts'
import { byKind } from './kinds.ts'
import { AlarmFields, keepActions } from './AlarmPanel.tsx'
import { wholePercent } from '../../core/messages/format.ts'
import { Failed, Passed } from '../words/signs.tsx'

/** Default actions: one click adds them to detections that have none. */
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
    <article className="action-panel" aria-label={msg.defaultActions}>
      <h2>{msg.defaultActions}</h2>
      <p className="quiet">{msg.addedToADetection}</p>
      <div className="stacked">
        {[...state.endpoints].sort(byKind).map((e) => (
          <Checkbox
            key={e.id}
            checked={usual.links.includes(e.id)}
            onChange={(x) =>
              document.edit(said('edits.usualActions'), [
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
            document.edit(said('edits.ofTheUsualActions', label), ['usual:', next])
          )
        }
      />
      {state.detections.length > 0 && (
        <Button
          disabled={!state.usual?.links.length || !without.length}
          onClick={() =>
            document.setActions(
              without.map(keyOf),
              () => state.usual!,
              said('edits.usualActionsForDetections', without.length)
            )
          }
        >
          {without.length ? msg.addToWithoutActions(without.length) : msg.everyDetectionHasActions}
        </Button>
      )}
      <p className="quiet matrix-legend">
        <span>
          <span className="crossing whole" aria-hidden="true">
            <Passed />
          </span>
          {msg.onForAllArmed}
        </span>
        <span>
          <span className="crossing part" aria-hidden="true">
            <i style={{ width: '50%' }} />
            <span>{wholePercent(0.5)}</span>
          </span>
          {msg.onForPartOf}
        </span>
        <span>
          <span className="crossing never" aria-hidden="true">
            <Failed />
          </span>
          {msg.never}
        </span>
      </p>
      <p className="quiet">{msg.clickACrossingToLink}</p>
    </article>
  )
}
