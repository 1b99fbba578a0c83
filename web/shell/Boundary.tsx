import { Button } from 'antd'
import type { ComponentType, ReactNode } from 'react'
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

/** Catches what fails in it; going to another place leaves the failure behind. */
const boundaryWith = (FallbackComponent: ComponentType<FallbackProps>) =>
  function Boundary({ children }: { children: ReactNode }): ReactNode {
    const { pathname } = useLocation()
    return (
      <ErrorBoundary FallbackComponent={FallbackComponent} resetKeys={[pathname]}>
        {children}
      </ErrorBoundary>
    )
  }

/** For a whole place. */
export const PlaceBoundary = boundaryWith(PlaceFailed)
/** For a part of a line, such as the top bar's. */
export const PartBoundary = boundaryWith(PartFailed)
