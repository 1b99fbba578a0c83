import { emptyPlace as msg } from '../../core/messages/en/shell.ts'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { EmptyPlaceText } from './places.ts'

export function EmptyPlace({ name, what, then }: EmptyPlaceText): ReactNode {
  return (
    <main className="empty-place">
      <h1>{name}</h1>
      <p>{what}</p>
      {then.length > 0 && (
        <ul>
          {then.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      <p>
        <Link to="/bench">{msg.goToTheBench}</Link>
      </p>
    </main>
  )
}
