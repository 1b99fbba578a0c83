import type { Said } from '../../../core/messages/said.ts'
import type { ReactNode } from 'react'
import type { SiteActionsView } from '../../../core/api.ts'
import type { Endpoint } from '../../../core/formats/actions.ts'
import type { SiteState } from '../../sync/siteDocument.ts'

/** Keeps a change of an endpoint. @returns what is wrong with it, or null */
export type Keep = (change: Partial<Endpoint>, label?: Said) => string | null

export interface FieldsProps<E extends Endpoint> {
  endpoint: E
  view: SiteActionsView
  state: SiteState
  keep: Keep
}

/** A kind of endpoint on the screen. */
export interface EndpointFace<E extends Endpoint> {
  name: string
  icon: ReactNode
  group: 'outputs' | 'messages' | 'records'
  /** The settings that the kind has. */
  Fields: (props: FieldsProps<E>) => ReactNode
  /** Settings to begin with, common in the trade (docs/references.md); each is changed beside the matrix. */
  start: (simulators: { host: string } | null) => Partial<E>
  /** What its test is called. */
  test: string
  /** The page of the simulators that shows what arrives; null: none does. */
  simulated: '/outputs' | '/station' | '/hooks' | '/mailbox' | null
}
