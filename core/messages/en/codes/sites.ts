import { messages } from '../../messages.ts'

export const sites = messages({
  aZipFile: 'a ZIP file, sent as application/zip',
  mustBeAList: 'must be a list',
  tooMany: (most: number) => `has more than ${most}`,
  noSuchSchedule: (id: string) => `names schedule "${id}", which is not in the archive`,
  idTwice: (id: string) => `has "${id}" twice`,
  noZip: 'is not a ZIP file; choose one that Wardoptic has exported',
  tooLarge: (megabytes: number) => `unpacks to more than ${megabytes} MB`,
  noSiteInIt: (file: string) => `has no ${file}; choose a site that Wardoptic has exported`,
  noJson: 'is not JSON',
  noVoice: (name: string) => `lacks the voice file of "${name}"`,
  onlyOne: 'This is the only site. Add another one first.'
})
