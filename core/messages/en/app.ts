import { messages } from '../messages.ts'

export const app = messages({
  nothingHere: 'Nothing here',
  thereIsNoPlaceAt: 'There is no place at this address.',
  notForYou: 'Not for you',
  asYouHaveToDo: (role: string) => `As ${role} you have to do with Watch only.`
})
