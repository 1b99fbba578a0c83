import { createElement, lazy, useState, type ComponentProps, type ReactNode } from 'react'

type Component = Awaited<ReturnType<Parameters<typeof lazy>[0]>>['default']
type Part<T> = T extends Component ? T : never

/** A part whose code comes later. */
interface LazyPart<C extends Component> {
  (props: ComponentProps<C>): ReactNode
  /** Fetches its code before it is shown. */
  fetchCode: () => Promise<unknown>
}

/**
 * The component of that name of a module, whose code is fetched when it is first shown. When it is there already, it is
 * shown at once: React would keep it back until 300 ms after the last sign that something was loading.
 */
export function lazyPart<M, Name extends keyof M>(
  load: () => Promise<M>,
  name: Name
): LazyPart<Part<M[Name]>> {
  let fetched: Part<M[Name]> | null = null
  const fetchCode = async (): Promise<{ default: Part<M[Name]> }> => ({
    default: (fetched = (await load())[name] as Part<M[Name]>)
  })
  const Waiting = lazy(fetchCode)
  return Object.assign(
    function Later(props: ComponentProps<Part<M[Name]>>): ReactNode {
      // One that was shown as waiting stays that one: as another component it would lose its state.
      const [Shown] = useState(() => fetched ?? Waiting)
      return createElement(Shown, props)
    },
    { fetchCode }
  )
}
