import { emptyPlace as msg } from '../../core/messages/en/shell.ts'
import type { ReactNode } from 'react'
import { Link } from 'react-router'

/** A page with nothing on it but why, and the way on. */
export function EmptyPlace({ name, what }: { name: string; what: string }): ReactNode {
  return (
    <main className="empty-place">
      <h1>{name}</h1>
      <p>{what}</p>
      <p>
        <Link to="/bench">{msg.goToTheBench}</Link>
      </p>
    </main>
  )
}
