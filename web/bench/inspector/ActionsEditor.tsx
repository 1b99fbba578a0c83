import { said } from '../../../core/messages/said.ts'
import { actionsEditor as msg } from '../../../core/messages/en/bench/inspector.ts'
import { Checkbox } from 'antd'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { SavedEndpoint } from '../../../core/api.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import type { BenchDocument } from '../document.ts'

/** The actions of a detection: endpoints of the site, linked or not. They are set up in the place Actions. */
export function ActionsEditor({
  detection,
  document,
  endpoints,
  links
}: {
  detection: Detection
  document: BenchDocument
  endpoints: readonly SavedEndpoint[]
  links: readonly string[]
}): ReactNode {
  return (
    <>
      {endpoints.length === 0 && <p>{msg.noActionsOnThis}</p>}
      <div className="stacked">
        {endpoints.map(({ endpoint: { id, name } }) => (
          <Checkbox
            key={id}
            checked={links.includes(id)}
            onChange={(e) =>
              document.link(
                [detection.id],
                id,
                e.target.checked,
                e.target.checked ? said('edits.link', name) : said('edits.unlink', name)
              )
            }
          >
            {name}
          </Checkbox>
        ))}
      </div>
      <Link to={`/actions?detection=${encodeURIComponent(detection.id)}`}>
        {endpoints.length ? msg.editInActions : msg.setUpActions}
      </Link>
    </>
  )
}
