/**
 * What the audit list says of each thing that accounts do, by its code: a happening, or the route
 * that was asked for.
 */
const words: Readonly<Record<string, string>> = {
  'signed-in': 'Signed in',
  'signed-out': 'Signed out',
  'wrong-password': 'Wrong password',
  'first-account': 'Made the first account',
  recovered: 'Recovered on the machine itself',
  'PUT /api/session/password': 'Changed own password',
  'DELETE /api/session/all': 'Ended own other sessions',
  'DELETE /api/session/all/:id': 'Ended one of own sessions',
  'POST /api/accounts': 'Added an account',
  'PUT /api/accounts/:id': 'Changed an account',
  'DELETE /api/accounts/:id': 'Removed an account',
  'PUT /api/cameras/:camera/detections/:id': 'Saved a detection',
  'DELETE /api/cameras/:camera/detections/:id': 'Deleted a detection',
  'PUT /api/cameras/:camera/detections/:id/actions': 'Saved the actions of a detection',
  'PUT /api/cameras/:camera/scene': 'Saved the scene of a camera',
  'PUT /api/sites/:site/schedules/:id': 'Saved a schedule',
  'DELETE /api/schedules/:id': 'Deleted a schedule',
  'POST /api/calendars': 'Read a calendar',
  'POST /api/cameras/:camera/clips': 'Added a clip',
  'POST /api/cameras/:camera/made-clips': 'Made a clip',
  'PATCH /api/clips/:id': 'Changed a clip',
  'DELETE /api/clips/:id': 'Deleted a clip',
  'POST /api/clips/:id/stop': 'Stopped an analysis',
  'POST /api/clips/:id/analyse': 'Analysed a clip again',
  'POST /api/clips/:id/reference': 'Set the tamper reference of a clip',
  'POST /api/clips/:id/runs': 'Replayed a clip as live',
  'POST /api/runs/:id/stop': 'Stopped a replay',
  'POST /api/proving/take': 'Added proposed checks',
  'POST /api/proving/runs': 'Ran checks',
  'POST /api/proving/runs/:id/stop': 'Stopped a run of checks',
  'POST /api/proving/runs/:id/go-on': 'Resumed a run of checks',
  'PUT /api/cameras/:camera/checks/:id': 'Saved a check',
  'DELETE /api/cameras/:camera/checks/:id': 'Deleted a check',
  'POST /api/cameras/:camera/walk': 'Started a walk test',
  'POST /api/cameras/:camera/walk/finish': 'Finished a walk test',
  'DELETE /api/cameras/:camera/walk': 'Stopped a walk test',
  'POST /api/readiness/fixes': 'Applied a fix',
  'POST /api/devices/find': 'Searched for devices',
  'POST /api/devices': 'Added a device',
  'DELETE /api/devices/:id': 'Removed a device',
  'POST /api/devices/:id/read': 'Read a device again',
  'POST /api/devices/:id/account': 'Set the account of a device',
  'PUT /api/devices/:id/channels/:token': 'Changed a channel of a device',
  'PUT /api/devices/:id/channels/:token/mode': 'Set the analysis mode of a device',
  'POST /api/devices/:id/outputs/:token/test': 'Tested an output',
  'POST /api/devices/:id/take-over': 'Imported a rule from a device',
  'POST /api/sendings': 'Sent the plan to devices',
  'PUT /api/endpoints/:id': 'Saved an action',
  'DELETE /api/endpoints/:id': 'Deleted an action',
  'POST /api/endpoints/:id/test': 'Tested an action',
  'POST /api/voices': 'Added a voice file',
  'PUT /api/inputs': 'Saved the contacts',
  'PUT /api/settings/mail': 'Saved the mail server',
  'PUT /api/settings/people': 'Saved the people',
  'PUT /api/settings/usual': 'Saved the default actions',
  'PUT /api/settings/retention': 'Saved how long things are kept',
  'POST /api/alarms/:id/acknowledge': 'Acknowledged an alarm',
  'POST /api/alarms/:id/notes': 'Commented on an alarm',
  'POST /api/alarms/:id/hand': 'Assigned an alarm',
  'POST /api/alarms/:id/close': 'Closed an alarm',
  'POST /api/deliveries/:id/retry': 'Retried a delivery'
}

/** Codes that have words. */
export const auditCodes: readonly string[] = Object.keys(words)

/** @param what the code of an entry @param status of the answer */
export function auditWords(what: string, status: number): string {
  const said = words[what] ?? 'Did something that this version has no words for'
  if (status < 400 || what === 'wrong-password') return said
  return `${said}: ${status === 403 ? 'not allowed' : status === 429 ? 'too many' : status < 500 ? 'refused' : 'failed'}`
}
