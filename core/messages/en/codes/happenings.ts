import { capital, count, dateAndSecond, seconds } from '../../format.ts'
import { messages } from '../../messages.ts'

/** What a trigger says happened. */
export const happenings = messages({
  crossed: (who: string, line: string, path: string) => `${capital(who)} crossed ${line}, ${path}`,
  tamper: (detection: string, cause: string) => `${detection}: camera ${cause}`,
  tampered: 'tampered with',
  videoLoss: (detection: string) => `${detection}: video loss`,
  contact: (detection: string) => `${detection}: contact active`,
  motion: (detection: string) => `${detection}: motion`,
  triggered: (detection: string) => `${detection} triggered`,
  triggeredBy: (detection: string, who: string) => `${detection}: ${who}`,
  target: 'target',
  at: (camera: string, what: string) => `${camera}: ${what}`
})

/** The text of a mail. */
export const mail = messages({
  site: (name: string) => `Site: ${name}`,
  camera: (name: string) => `Camera: ${name}`,
  line: (name: string) => `Line: ${name}`,
  detection: (name: string) => `Detection: ${name}`,
  direction: (path: string) => `Direction: ${path}`,
  severity: (severity: string) => `Severity: ${severity}`,
  time: (instant: number, timeZone: string) =>
    `Time at the site: ${dateAndSecond(instant, timeZone)} (${timeZone})`,
  target: (who: string, id: number) => `Target: ${who} ${id}`,
  clipTime: (time: number) => `Time in the clip: ${seconds(time)}`,
  noPicture: 'No picture attached.',
  noPictureWhy: (why: string) => `No picture attached: ${why}.`,
  pictures: (n: number) =>
    n === 1
      ? 'The picture of the moment is attached.'
      : `${count(n, 'picture')} from before to after the moment are attached.`,
  somePictures: (n: number, why: string) =>
    `${count(n, 'picture is', 'pictures are')} attached; others are missing: ${why}.`,
  testSubject: (site: string, endpoint: string) => `${site}: test of ${endpoint}`,
  testText: (site: string) => `This is a test of the e-mails of ${site}. Nothing has happened.`
})
