import { emptyPlace as msg } from '../../core/messages/en/shell.ts'
import type { ReactNode } from 'react'
import { Link } from 'react-router'

const PLACES = { site: msg.goToTheSite, bench: msg.goToTheBench, watch: msg.goToWatch }

/**
 * A page with nothing on it but why, and the way on.
 *
 * @param on the place to go on from
 */
export function EmptyPlace({
  name,
  what,
  on = 'site'
}: {
  name: string
  what: string
  on?: keyof typeof PLACES
}): ReactNode {
  return (
    <main className="empty-place">
      <h1>{name}</h1>
      <p>{what}</p>
      <p>
        <Link to={`/${on}`}>{PLACES[on]}</Link>
      </p>
    </main>
  )
}
