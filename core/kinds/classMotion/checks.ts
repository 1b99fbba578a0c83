import { said } from '../../messages/said.ts'
import { USUAL_ACTORS } from '../../formats/walk.ts'
import type { Ask, Draft, Found } from '../../proving/drafts.ts'
import { silence } from '../../proving/pictures.ts'
import { cellsChecks } from '../cellsChecks.ts'
import type { ClassMotionDetection } from './schema.ts'

/** Who counts and who does not. Who is to be recognised must be seen from head to foot, so not at the nearest place. */
export const classMotionChecks = (ask: Ask, d: ClassMotionDetection): Found =>
  cellsChecks(ask, d, {
    classes: d.classes,
    near: 0.125,
    more: (sample, bySomebody) => {
      const drafts: Draft[] = []
      const dog = sample('dog', USUAL_ACTORS.dog.speed)
      if (dog && d.classes.length && !d.classes.includes('animal'))
        drafts.push({
          key: 'class.animal',
          name: said('checkNames.aDogNot'),
          about: 'class',
          side: 'outside',
          walk: dog,
          expect: silence
        })
      const person = sample('adult', USUAL_ACTORS.adult.speed)
      if (person && d.classes.includes('person'))
        drafts.push({
          key: 'class.person',
          name: said('checkNames.aPerson'),
          about: 'class',
          side: 'inside',
          walk: person,
          expect: bySomebody(person)
        })
      return drafts
    }
  })
