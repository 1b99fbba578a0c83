import { messages } from '../../messages.ts'

/** At the desk: a walk test is opened on a phone. */
export const phoneLink = messages({
  openOnPhone: 'Open on phone',
  title: (name: string) => `Walk “${name}” on a phone`,
  scan: 'Scan this code with the phone’s camera.',
  goodOnce: (until: string) =>
    `The code works once. It opens this walk test and the live picture of this camera, nothing else, until ${until}.`,
  qrCode: 'QR code of the walk test',
  orOpen: 'Or open this address on the phone:',
  copy: 'Copy address',
  copied: 'Address copied',
  address: 'Server address',
  onlyHere:
    'Phones can’t reach this address: the server listens on this machine only. Start it with “npm start -- --listen ADDRESS”, open Wardoptic at that address, and make the code there.',
  preparing: 'Making the code…',
  opened: 'The phone has opened the walk test',
  openedFrom: (browser: string, address: string) => `${browser}, ${address}`,
  over: 'This code has ended.',
  newCode: 'New code',
  access: 'Phones with access',
  notOpened: 'code not used',
  line: (by: string, until: string) => `by ${by}, until ${until}`,
  revoke: 'Revoke',
  revoked: 'Access revoked'
})

/** On the phone. */
export const phonePlace = messages({
  walkTest: 'Walk test',
  opening: 'Opening…',
  accessOf: (by: string, until: string) => `For ${by}, until ${until}`,
  endAccess: 'End access',
  ended: 'Access ended',
  endedHere: 'This phone can no longer see this walk test. Make a new code at the desk.',
  cannotOpen: 'This code can’t be used',
  onlyOneWalk: 'Scan the code of a walk test',
  howToGetOne: 'At the desk, open Walk test and choose “Open on phone”.'
})
