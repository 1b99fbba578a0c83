import { messages } from '../../messages.ts'

export const kinds = messages({
  mustBeAnyWithOr: 'must be any, with or without',
  mustBeAnyListedOr: 'must be any, listed or notListed',
  mustBeAListOf4: 'must be a list of names',
  mustBeOpenOrClosed: 'must be open or closed',
  mustBeAListOf3: 'must be a list of causes',
  mustNameAtLeastOne: (value: string) => `must name at least one of ${value}`,
  mustBeAListOf: 'must be a list of classes',
  namesAClassTwice: 'names a class twice',
  mustBeAListOf2: 'must be a list of rows of 0 and 1, all of one length, such as ["011", "001"]',
  hasMoreThan100Rows: 'has more than 100 rows',
  hasNoCellSelectedMotion: 'has no cell selected; motion would never count'
})
