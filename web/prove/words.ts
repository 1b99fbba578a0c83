import { common } from '../../core/messages/en/common.ts'
import { words as msg } from '../../core/messages/en/prove/prove.ts'
import type { About, Check } from '../../core/formats/check.ts'

export const aboutNames: Record<About, string> = {
  passes: common.classes,
  direction: common.direction,
  share: common.overlap,
  class: common.class,
  size: msg.size,
  confirm: common.confirmTime,
  dwell: common.dwell,
  together: msg.numberTogether,
  ignore: common.ignoreAreas,
  holdOff: common.reTriggerDelay,
  armed: common.armingSchedule,
  armInput: common.contact,
  face: common.face,
  mask: common.mask,
  list: msg.listOfFaces,
  cells: msg.cellsInMotion,
  cause: msg.cause,
  delay: common.delay,
  contact: common.contact,
  outputs: msg.actions,
  nuisance: msg.nuisance
}

export const expectedWords = ({ expect }: Check): string =>
  expect.what === 'silence'
    ? common.mustNotTrigger
    : expect.times !== undefined && expect.times > 1
      ? msg.triggers(expect.times)
      : msg.aTrigger

export const byWords: Record<Check['by']['how'], string> = {
  walk: msg.simulatedWalk,
  clip: msg.partOfAClip,
  person: msg.walkOnSite
}
