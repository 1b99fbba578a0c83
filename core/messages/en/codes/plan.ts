import { messages } from '../../messages.ts'

export const plan = messages({
  positionNeeded: (schedule: string) =>
    `is missing; ${schedule} has times tied to the sun, which need the site’s position`,
  noInputs: 'no inputs',
  isAndThe: (body: string, path: string) =>
    `is "${body}", and the address says "${path}"; they must be the same`,
  isInMetresAndThe:
    'is in metres, but this camera is not calibrated; calibrate it, or use min and max',
  names: (input: string, inputs: string) => `names "${input}"; ${inputs}`,
  mustStayHasASize: (name: string) => `is needed: ${name} has size limits in metres`,
  isTiedToTheSun: 'follows the sun, but the site has no position',
  theSiteHas: (inputs: string) => `the site has ${inputs}`
})
