import { messages } from '../messages.ts'

export const app = messages({
  nothingHere: 'Nothing here',
  thereIsNoPlaceAt: 'No page at this address.',
  notForYou: 'No access',
  asYouHaveToDo: (role: string) => `You are signed in as ${role}. This role can open Watch only.`
})
