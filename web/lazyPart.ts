import { lazy, type LazyExoticComponent } from 'react'

type Component = Awaited<ReturnType<Parameters<typeof lazy>[0]>>['default']
type Part<T> = T extends Component ? T : never

/** The component of that name of a module, whose code is loaded when it is first shown. */
export const lazyPart = <M, Name extends keyof M>(
  load: () => Promise<M>,
  name: Name
): LazyExoticComponent<Part<M[Name]>> =>
  lazy(async () => ({ default: (await load())[name] as Part<M[Name]> }))
