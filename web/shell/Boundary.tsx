import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { boundary as msg } from '../../core/messages/en/shell.ts'
import { Button } from 'antd'
import type { ComponentType, ReactNode } from 'react'
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary'
import { useLocation } from 'react-router'

function PlaceFailed({ error, resetErrorBoundary }: FallbackProps): ReactNode {
  return (
    <main className="empty-place" role="alert">
      <h1>{msg.thisPageHasFailed}</h1>
      <p>{msg.theFaultIsInWardoptic(problemWords(error))}</p>
      <p className="row wrap">
        <Button type="primary" onClick={resetErrorBoundary}>
          {common.retry}
        </Button>
        <Button onClick={() => location.reload()}>{msg.reload}</Button>
      </p>
    </main>
  )
}

function PartFailed({ error, resetErrorBoundary }: FallbackProps): ReactNode {
  return (
    <span role="alert" title={problemWords(error)}>
      {msg.thisPartHasFailed}{' '}
      <button type="button" className="link-button" onClick={resetErrorBoundary}>
        {common.retry}
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
