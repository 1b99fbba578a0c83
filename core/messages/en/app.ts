import { messages } from '../messages.ts'

export const app = messages({
  nothingHere: 'Nothing here',
  noPageAtThis: 'No page at this address.',
  noAccess: 'No access',
  yourRoleIsThis: (role: string) => `Your role is ${role}. This role can open Watch only.`
})
