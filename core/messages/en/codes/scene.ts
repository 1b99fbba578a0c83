import { messages } from '../../messages.ts'

export const scene = messages({
  hasMoreThan50People: 'has more than 50 people',
  mustBeFourCorners: 'must be four corners',
  mustBeFourCornersIn: 'must be four corners, in order around',
  mustBePeopleOrRectangle: 'must be people or rectangle',
  areAtLeastPeople: (marks: number, least: number) =>
    `Mark at least ${least} people, nearer and farther away; ${marks} marked so far.`,
  isMustBeA: (metres: number) => `is ${metres}; must be a height from 0.5 to 2.5 m`,
  hasItsHeadAtOr: 'has its head at or below its foot; mark the foot first, then the head',
  doNotFitOneCamera: 'do not fit one camera over flat ground; check feet, heads and heights',
  areTooMuchAlikeTo: 'are too similar; mark people nearer and farther away, or enter the lens',
  areMustBe4: (corners: number) =>
    `Mark four corners, in order around the rectangle; ${corners} marked so far.`,
  isMustBeMetres: (metres: number) => `is ${metres}; must be metres above 0, at most 1000`,
  lieOnOneStraightLine: 'lie on one straight line; mark the four corners of the rectangle',
  doNotTellTheLens:
    'do not tell the lens: opposite sides must not be parallel on the picture, and the corners must be in order around',
  isAtOrAboveThe: 'is at or above the horizon; mark it on the ground'
})
