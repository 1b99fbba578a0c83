import { Component, type ReactNode } from 'react'

/** Where a part of the interface fails, that is said in its place, with a way on; what was edited is kept as it was made. */
export class Boundary extends Component<{ children: ReactNode }, { error: Error | null }> {
  override state: { error: Error | null } = { error: null }

  static getDerivedStateFromError(error: Error): { error: Error } {
    return { error }
  }

  override render(): ReactNode {
    const { error } = this.state
    if (!error) return this.props.children
    return (
      <main className="empty-place">
        <h1>This place failed</h1>
        <p>
          It is a mistake in Wardoptic, not in what you did: {error.message}. What you edited is
          kept as it was made.
        </p>
        <p>
          <button type="button" className="link-button" onClick={() => location.reload()}>
            Load it again
          </button>
        </p>
      </main>
    )
  }
}
