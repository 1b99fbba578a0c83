import { Button } from 'antd'
import type { ReactNode } from 'react'
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary'
import { useLocation } from 'react-router'

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error))

function PlaceFailed({ error, resetErrorBoundary }: FallbackProps): ReactNode {
  return (
    <main className="empty-place" role="alert">
      <h1>This page has failed</h1>
      <p>The fault is in Wardoptic, not in what you did: {wordsOf(error)}. Your edits are saved.</p>
      <p className="row wrap">
        <Button type="primary" onClick={resetErrorBoundary}>
          Try again
        </Button>
        <Button onClick={() => location.reload()}>Reload</Button>
      </p>
    </main>
  )
}

function PartFailed({ error, resetErrorBoundary }: FallbackProps): ReactNode {
  return (
    <span role="alert" title={wordsOf(error)}>
      This part has failed.{' '}
      <button type="button" className="link-button" onClick={resetErrorBoundary}>
        Try again
      </button>
    </span>
  )
}

/**
 * A place that fails says so and leaves the rest of the page alone; going to another place leaves
 * the failure behind.
 */
export function PlaceBoundary({ children }: { children: ReactNode }): ReactNode {
  const { pathname } = useLocation()
  return (
    <ErrorBoundary FallbackComponent={PlaceFailed} resetKeys={[pathname]}>
      {children}
    </ErrorBoundary>
  )
}

/** The same for a part of a line, such as the top bar's. */
export function PartBoundary({ children }: { children: ReactNode }): ReactNode {
  const { pathname } = useLocation()
  return (
    <ErrorBoundary FallbackComponent={PartFailed} resetKeys={[pathname]}>
      {children}
    </ErrorBoundary>
  )
}
