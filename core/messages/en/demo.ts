import { wholePercent } from '../format.ts'
import { messages } from '../messages.ts'

/** The demo site's first page. */
export const demoCard = messages({
  title: 'Worth trying first',
  hide: 'Hide',
  watch: 'Answer the open alarms',
  watchSays: 'Mark which were wanted and which were nuisances.',
  tune: 'Tune Pontoon after hours',
  tuneSays: 'Seven days to look back at, with marks.',
  prove: 'Find the failed check',
  proveSays: 'Path crossing has changed since spring.',
  send: 'Send Quay edge to its camera',
  sendSays: 'Then walk it on the simulated slipway.',
  handover: 'Compare with last spring',
  handoverSays: 'The record of 17 April against today.',
  plan: 'Adding detections…',
  past: (done: number) => `Simulating the last seven days: ${wholePercent(done)}`,
  clips: 'Adding clips…',
  devices: 'Sending to devices and testing actions…',
  checks: (done: number) => `Running checks: ${wholePercent(done)}`,
  record: 'Making the record of last spring…',
  since: (done: number) => `Running checks again: ${wholePercent(done)}`
})
