import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

export const input = messages({
  shareOfThePicture: ' (a share of the picture)',
  at: (place: string, what: string) => `${place}: ${what}`,
  mustBeACode: 'must be the code of a text',
  isNotKnownHere: 'is not known here; remove it or correct its name',
  isMissing: 'is missing',
  mustBeAnObject: 'must be an object',
  thisRunHasEndedAlready: 'This run has ended.',
  isAndThe: (id: string, id2: string) =>
    `is "${id}", but the address has "${id2}"; they must be the same`,
  namesAndThe4: (schedule: string) => `names "${schedule}", which does not exist`,
  hasNotBeenAnalysed: (name: string) => `${name} is not analysed. Analyse it first.`,
  mustBeAWholeNumber2: 'must be a whole number of milliseconds',
  mustBeAtMost10000: 'must be at most 10000',
  mustBeAnId: 'must be an id',
  mustBeANumber: 'must be a number',
  mustBeLefttorightOrRighttoleft: 'must be leftToRight or rightToLeft',
  mustBe0OrMore: 'must be 0 or more',
  mustBeAnInstantIn: 'must be an instant in milliseconds',
  isLongerThanCharacters: (most: number) => `is longer than ${most} characters`,
  mustBeAListOf10: 'must be a list of people',
  mustBeAHost: 'must be a host',
  mustBeAListOf9: 'must be a list of people and groups',
  mustNotBeEmpty: 'must not be empty',
  mustBeAListOf22: 'must be a list of areas',
  mustBeOneOf: (value: string) => `must be one of ${value}`,
  mustBeAWholeNumber: 'must be a whole number',
  mustBeTrueOrFalse: 'must be true or false',
  mustBeANumberFrom: (min: number, max: number, unit: string) =>
    `must be a number from ${min} to ${max}${unit}`,
  isMustBeFrom: (input: number, min: number, max: number, unit: string) =>
    `is ${input}${unit}; enter ${min} to ${max}${unit}`,
  mustBeATextOf: (most: number) => `must be a text of 1 to ${most} characters`,
  isCharactersLongAtMost: (input: number, most: number) =>
    `is ${input} characters long; at most ${most} are allowed`,
  mustBeAText: 'must be a text',
  mustBe1To64: 'must be 1 to 64 letters, digits, - or _',
  mustBeAPointX: 'must be a point [x, y]',
  mustBeAListOf: 'must be a list of 2 to 10 vertices',
  hasVertexVerticesA: (input: number) =>
    `has ${count(input, 'vertex', 'vertices')}; a line needs 2 to 10`,
  hasVerticesALineMay: (input: number) => `has ${input} vertices; a line may have 2 to 10`,
  hasNoLengthBetweenVertices: (input: number, value: number) =>
    `has no length between vertices ${input} and ${value}; they must be at different places`,
  mustBeAListOf2: 'must be a list of at least 3 vertices',
  hasVerticesAZoneNeeds: (input: number) => `has ${input} vertices; a zone needs at least 3`,
  hasVerticesAZoneMay: (input: number) => `has ${input} vertices; a zone may have at most 40`,
  hasNoAreaItsVertices: 'has no area; its vertices must not lie on one straight line',
  crossesItselfEdgeMeetsEdge: (value: number, value2: number) =>
    `crosses itself (edge ${value} meets edge ${value2}); its outline must not touch itself`
})
