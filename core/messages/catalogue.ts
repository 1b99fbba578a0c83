import { accounts } from './en/codes/accounts.ts'
import { actions } from './en/codes/actions.ts'
import { alarms } from './en/codes/alarms.ts'
import { api } from './en/codes/api.ts'
import { days, arming } from './en/codes/arming.ts'
import {
  checkNames,
  walkers,
  faultNames,
  checkGaps,
  verdicts,
  effects,
  causesOfSilence
} from './en/codes/checks.ts'
import { clips } from './en/codes/clips.ts'
import { conditions, why, classes, causes, curves } from './en/codes/conditions.ts'
import { deliveries } from './en/codes/deliveries.ts'
import { devices } from './en/codes/devices.ts'
import { edits } from './en/codes/edits.ts'
import { formats } from './en/codes/formats.ts'
import { handover, serviceVisit } from './en/codes/handover.ts'
import { happenings, mail } from './en/codes/happenings.ts'
import { input } from './en/codes/input.ts'
import { kinds } from './en/codes/kinds.ts'
import { lookBack } from './en/codes/lookBack.ts'
import { mailbox } from './en/codes/mailbox.ts'
import { marks } from './en/codes/marks.ts'
import { measures } from './en/codes/measures.ts'
import { kindNames, severities } from './en/codes/names.ts'
import { places } from './en/codes/places.ts'
import { plan } from './en/codes/plan.ts'
import { proving } from './en/codes/proving.ts'
import { readiness } from './en/codes/readiness.ts'
import { scene } from './en/codes/scene.ts'
import { scenes } from './en/codes/scenes.ts'
import { server } from './en/codes/server.ts'
import { settings, values } from './en/codes/settings.ts'
import { shapes } from './en/codes/shapes.ts'
import { sites } from './en/codes/sites.ts'
import { things } from './en/codes/things.ts'
import { tuning } from './en/codes/tuning.ts'
import { watch } from './en/codes/watch.ts'
import { programs } from './programs.ts'

/** All that can be said by a code, by area and name. */
export const catalogue = {
  ...programs,
  accounts,
  actions,
  alarms,
  api,
  days,
  arming,
  checkNames,
  walkers,
  faultNames,
  checkGaps,
  verdicts,
  effects,
  causesOfSilence,
  clips,
  conditions,
  why,
  classes,
  causes,
  curves,
  deliveries,
  devices,
  edits,
  formats,
  handover,
  serviceVisit,
  happenings,
  mail,
  input,
  kinds,
  lookBack,
  mailbox,
  marks,
  measures,
  kindNames,
  severities,
  places,
  plan,
  proving,
  readiness,
  scene,
  scenes,
  server,
  settings,
  values,
  shapes,
  sites,
  things,
  tuning,
  watch
}
export type Catalogue = typeof catalogue
