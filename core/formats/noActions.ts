import type { Actions } from './actions.ts'

/** What a detection has that nobody has linked yet: the defaults of the schema, without the schema, for the browser. */
export const NO_ACTIONS: Actions = {
  links: [],
  severity: 'major',
  priority: 'normal',
  for: [],
  acknowledge: { comment: false, confirm: false },
  groupSeconds: 60,
  accepted: [],
  quietSeconds: 0
}
