import { messages } from '../messages.ts'

export const boundary = messages({
  thisPageHasFailed: 'This page has failed',
  theFaultIsInWardoptic: (error: string) =>
    `This is a fault in Wardoptic: ${error}. Your saved changes are safe.`,
  reload: 'Reload',
  thisPartHasFailed: 'This part has failed.'
})

export const places = messages({
  handover: 'Handover',
  site: 'Site',
  devices: 'Devices',
  bench: 'Bench',
  arming: 'Arming',
  actions: 'Actions',
  prove: 'Prove',
  watch: 'Watch',
  walkTest: 'Walk test'
})

export const emptyPlace = messages({
  noCameras: 'No cameras',
  goToTheSite: 'Open the site page',
  goToTheBench: 'Open the Bench',
  goToWatch: 'Open Watch'
})

export const serverNote = messages({
  whatYouSeeMayBe: 'What you see may be out of date. Changes are saved when the server is back.'
})

export const topBar = messages({
  places: 'Places',
  mailbox: 'Mailbox',
  nightTheme: 'Night theme',
  dayTheme: 'Day theme',
  useTheNightTheme: 'Switch to night theme',
  useTheDayTheme: 'Switch to day theme'
})
