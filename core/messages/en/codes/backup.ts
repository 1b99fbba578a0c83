import { messages } from '../../messages.ts'

export const backup = messages({
  restored: (folder: string, madeAt: string) =>
    `${folder} is restored to its state of ${madeAt}. Start it with: npm start -- --data ${folder}\n`,
  isNotEmptyGive: (folder: string) => `${folder} is not empty; give a new folder`,
  holdsNoDatabase: 'holds no database',
  holdsWhichIs: (name: string) => `holds "${name}", which is not part of a backup`,
  wasMadeByANewer: (newer: string) =>
    `was made by a newer Wardoptic (${newer}); restore it with that version`,
  theDatabaseIsNotEmpty: (name: string) => `the database ${name} is not empty; give an empty one`,
  hasTheTableWhich: (table: string) => `has the table ${table}, which this version does not know`,
  hasOfRows: (count: number, said: number) => `has ${count} of ${said} rows`,
  isCutOffItsLast: 'is cut off: its last piece is missing',
  isDamagedPieceSaysThat: (value: number, length: number) =>
    `is damaged: piece ${value} claims ${length} bytes`,
  isCutOffInThe: 'is cut off in the middle of a piece',
  wasSealedWithAnotherPassphrase: 'has another passphrase, or is damaged',
  isDamagedAtPiece: (value: number) => `is damaged at piece ${value}`,
  goesOnAfterItsEnd: 'continues after its end',
  isNotABackupOf: (value: string) => `is not a Wardoptic backup (${value})`,
  asksForAKeyThat: 'needs a key this version does not support',
  thePassphraseHasCharactersIt: (passphrase: number, value: number) =>
    `the passphrase has ${passphrase} characters; it must have at least ${value}`,
  sayThePassphraseWithPassphraseFi:
    'give the passphrase with --passphrase-file FILE, or in WARDOPTIC_PASSPHRASE',
  passphraseOfTheBackup: 'Passphrase of the backup: ',
  theDatabaseIsBroughtUp: (file: string) => `Upgrading the database. Copy of the old one: ${file}`,
  theDatabaseAnd: (file: string, files: number, value: string) =>
    `${file}: the database and ${files} files, ${value} MB\n`
})
