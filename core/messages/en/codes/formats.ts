import { messages } from '../../messages.ts'

export const formats = messages({
  mustBeAnInstantSuch: 'must be an instant such as "2026-11-24T18:00:00Z"',
  mustBeAnInstantWith:
    'must be an instant with its offset from UTC, such as "2026-11-24T18:00:00Z"',
  mustBeAListOf13: 'must be a list of changes',
  mustBeSecondsFrom0: (most: number) => `must be seconds from 0 to ${most}`,
  mustBeTheIdOf2: 'must be the id of a detection',
  isNotIn: (detection: string, known: string) =>
    `"${detection}" is not in the plan; it has ${known}`,
  mustBeTruthOrPictures: 'must be truth or pictures',
  mustBeTheIdOf: 'must be the id of a clip',
  mustBeByOneOf: 'must be by one of walk, clip, person',
  mustExpectATriggerOr: 'must expect a trigger, or none',
  mustBe1To120: 'must be 1 to 120 letters, digits, ., - or _',
  mustBeInsideOrOutside: 'must be inside or outside',
  mustBeAListOf12: 'must be a list of effects',
  expectsATriggerInA:
    'expects a trigger in a window that ends before it begins; to must not be before from',
  hasAStretchOfA: 'has a stretch of a clip that ends before it begins; to must be after from',
  hasTheEvent: (named: string, what: string) => `has the event "${named}" with ${what}`,
  aRuleOfEachSecond: (value: boolean) =>
    `a rule of each ${value ? 'second' : 'minute'}; must recur each hour or more seldom`,
  theIntervalMustBe: (interval: number, value: number) =>
    `the interval ${interval}; must be 1 to ${value}`,
  aRuleOfMoreThan: 'a rule of more than 400 parts',
  moreThanDatesOfIts: (value: number) => `more than ${value} exceptions`,
  aDurationThatIsNegative: (value: number) =>
    `a duration that is negative or longer than ${value} days`,
  thatIsNoDate: (name: string, from: number, to: number) =>
    `${name} that is no date of the years ${from} to ${to}`,
  isNotIcalendarRfc5545: (message: string) => `is not iCalendar (RFC 5545): ${message}`,
  isNotIcalendarRfc55452: 'is not iCalendar (RFC 5545): it is empty',
  beginsWithMustBe: (toUpperCase: string) => `begins with ${toUpperCase}; must be a VCALENDAR`,
  hasNoEventsItsEvents: 'has no events; its events are the hours in which it is armed',
  hasEventsMustHaveAt: (components: number, value: number) =>
    `has ${components} events; must have at most ${value}`,
  hasTheEvent2: (uid: string) => `has the event "${uid}" without DTSTART`,
  hasTheEvent3: (uid: string, value: number) =>
    `has the event "${uid}" with more than ${value} occurrences`,
  mustBeACrcA: 'must be a CRC, a length and a quoted name',
  saysBytesAndHas: (length: number, bytes: number) => `says ${length} bytes and has ${bytes}`,
  hasTheCrcIt: (crc: string, body: string) => `has the CRC ${crc}; it should be ${body}`,
  isMustBeSiaDcs: (body: string) =>
    `is ${body}; must be "SIA-DCS", "NULL", "ACK", "NAK" or "DUH" with a sequence, a line, an account and brackets`,
  isMustBe8: (data: string) => `is "${data}"; must be such as Nri1/BA01^major: text^`,
  hasNoFrameWithA: 'has no frame with a time',
  hasNoNameOrNo: 'has no name or no type',
  hasAVertexAt: (x: string | undefined, y: string | undefined) =>
    `has a vertex at ${x}, ${y}; both must be numbers`,
  theFileGoesOnTo: (file: number, value: number) =>
    `the file goes on to ${file} bytes; at most ${value} (512 KB) are allowed`,
  theFileEndsHereA: 'the file ends here; a WAVE file begins with 12 bytes RIFF, size, WAVE',
  isAWave: (shown: string) => `is "${shown}"; a WAVE file begins with "RIFF"`,
  isMustBe7: (shown: string) => `is "${shown}"; must be "WAVE"`,
  saysThatTheFileHas: (says: number, file: number) =>
    `says that the file has ${says} bytes, and it has ${file}: it was cut off`,
  saysThatTheChunk: (at: string, size: number, value: number) =>
    `says that the chunk "${at}" has ${size} bytes, and the file ends after ${value} of them`,
  saysThatTheFormatHas: (size: number) =>
    `says that the format has ${size} bytes; it needs 16 or more`,
  saysThatTheExtensibleFormat: (size: number) =>
    `says that the extensible format has ${size} bytes; it needs 40`,
  isTheEncodingMust: (tag: number) =>
    `is the encoding ${tag}; must be 1 (PCM), 6 (A-law) or 7 (µ-law)`,
  saysChannelsMustBe1: (channels: number) => `says ${channels} channels; must be 1 (mono)`,
  saysSamplesASecondMust: (rate: number, value: number) =>
    `says ${rate} samples a second; must be ${value} (8 kHz)`,
  saysBitsASampleMust: (bits: number, value: boolean) =>
    `says ${bits} bits a sample; must be ${value ? '8 or 16' : '8'}`,
  saysBytesASampleMust: (block: number, value: number) =>
    `says ${block} bytes a sample; must be ${value}`,
  theSoundComesBeforeThe: 'the sound comes before the chunk "fmt " that says how to read it',
  saysThatThereIsNo: 'says that there is no sound',
  saysBytesOfSoundSamples: (size: number, value: number) =>
    `says ${size} bytes of sound; samples have ${value} bytes`,
  theFileEndsWithoutA: 'the file ends without a chunk "fmt "',
  theFileEndsWithoutA2: 'the file ends without a chunk "data"',
  areMustBe2: (part: string) => `are "${part}"; must be such as mon=18:30-24:00`,
  areMustBe: (text: string) => `are "${text}"; must be base64`,
  holdBytesAGridOf: (bytes: number, columns: number, rows: number, need: number) =>
    `hold ${bytes} bytes; a grid of ${columns} × ${rows} has ${need}`,
  holdMoreThanBytesThey: (most: number) =>
    `hold more than ${most} bytes; they are not those of this grid`,
  areCutOffInThe: 'are cut off in the middle of a stretch',
  areCutOffBeforeThe: 'are cut off before the byte of a run',
  isMustBe6: (text: string) => `is "${text}"; must be such as PT5S`,
  hasMoreThan100Links: 'has more than 100 links',
  namesAnEndpointTwice: 'names an endpoint twice',
  mustBeAListOf8: 'must be a list of endpoints',
  mustBeAListOf11: 'must be a list of groups',
  mustBeAHostSuch: 'must be a host such as mail.example.org',
  isNoSoapEnvelopeIts: (name: string) => `is no SOAP envelope; its root is ${name}`,
  hasMoreThanElements: (value: number) => `has more than ${value} elements`,
  isNestedMoreThanDeep: (value: number) => `is nested more than ${value} deep`,
  isLargerThanMb: (value: number) => `is larger than ${value} MB`,
  declaresADocumentTypeThat: 'declares a document type; that is not allowed in SOAP',
  isNotWellFormedXmlLine: (line: number, message: string) =>
    `is not well-formed XML (line ${line}: ${message})`,
  hasNoElementInIt: 'has no element in it',
  isNotWellFormedXml: (message: string) => `is not well-formed XML (${message})`,
  hasNo: (names: string) => `has no ${names}`,
  mustBeAWayPointX:
    'must be a way-point [x, z], [x, z, seconds to stay] or [x, z, seconds to stay, metres above ground]',
  mustBeAListOf6: 'must be a list of way-points',
  needsAtLeast2WayPoints: 'needs at least 2 way-points',
  mustBeOneOfNavy: 'must be one of navy, red, green, grey, ochre, white, black',
  mustBeAListOf7: 'must be a list of actors',
  isSMustBeAfter: (to: number, from: number) => `is ${to} s; must be after its start, ${from} s`,
  hasColumnsAFaceIs: (cells: number) =>
    `has ${cells} columns; a face is frame,id,left,top,width,height[,mask,name]`,
  isMustBe4: (cell: string) => `is "${cell}"; must be a number`,
  isMustBe5: (mask: string) => `is "${mask}"; must be with, without, or empty`,
  hasColumnsARowIs: (cells: number) =>
    `has ${cells} columns; a row is frame,id,left,top,width,height[,confidence,class,visibility]`,
  isMustBe2: (cells: string) => `is "${cells}"; must be a number`,
  isMustBeA: (cells: string, min: number, max: number) =>
    `is ${cells}; must be a whole number from ${min} to ${max}`,
  isMustBeAbove: (width: number) => `is ${width}; must be above 0`,
  isMustBeAbove2: (height: number) => `is ${height}; must be above 0`,
  targetStandsTwiceInFrame: (id: number, frame: number) =>
    `target ${id} stands twice in frame ${frame}; once is right`,
  isMustBe3: (text: string, value: string) =>
    `is "${text}"; must be a MOT16 number or one of ${value}`,
  mustBeATimeSuch: 'must be a time such as "18:30", "24:00" or "sunset-00:30"',
  isMustBe: (input: string) =>
    `is "${input}"; must be a time such as "18:30", "24:00" or "sunset-00:30"`,
  mustBeASpan1830: 'must be a span ["18:30", "24:00"]',
  runsFromToIts: (input: string, input2: string) =>
    `runs from ${input} to ${input2}; its start must come before its end (a span over midnight is two: one to "24:00", one from "00:00" of the next day)`,
  mustBeAListOf: 'must be a list of spans',
  hasMoreThan48Spans: 'has more than 48 spans',
  mustBeADateSuch: 'must be a date such as "2026-12-25"',
  mustBeATimeZone: 'must be a time zone such as "Europe/London"',
  mustBeAListOf3: 'must be a list of detections',
  mustBeWardopticPlan1: 'must be "wardoptic-plan/1"',
  mustBeAListOf4: 'must be a list of schedules',
  mustBeAListOf5: 'must be a list of cameras',
  isNotJson: (message: string) => `is not JSON (${message})`,
  isUsedTwice: (id: string) => `"${id}" is used twice; ids must differ`,
  namesAndThe: (schedule: string) => `names "${schedule}", and the plan has no such schedule`,
  isInMetresAndThe:
    'is in metres, but the camera is not calibrated; give $.cameras[].scene, or use min and max',
  isMissingSpansTiedTo: 'is missing; times by the sun need it',
  isMustBeOne: (input: string, value: string) => `is ${input}; must be one of ${value}`,
  isNoTracksFile: 'is no file of tracks, or is cut short',
  refusedWithoutAReason: 'refused without a reason'
})
