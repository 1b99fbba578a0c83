/**
 * What `npm start` says before the packages are there that the other texts need: plain JavaScript, in English only.
 */
export const setup = {
  cannotStart: (/** @type {string} */ command, /** @type {string} */ why) =>
    `${command} can’t be started: ${why}`,
  exited: (/** @type {string} */ command, /** @type {number | null} */ code) =>
    `${command} ended with code ${code}`,
  installingDebian: (/** @type {readonly string[]} */ names) =>
    `Installing Debian packages: ${names.join(', ')}…`,
  byHand: (/** @type {string} */ why, /** @type {readonly string[]} */ names) =>
    `${why}. Install by hand: apt-get install ${names.join(' ')}`,
  notThere: (/** @type {readonly string[]} */ names, /** @type {readonly string[]} */ files) =>
    `apt-get installed ${names.join(', ')}, but ${files.join(', ')} is missing`,
  installingPackages: 'Installing npm packages…',
  building: 'Building the interface…',
  notBuilt: 'The interface can’t be built; see the messages above.',
  error: (/** @type {string} */ why) => `error: ${why}`
}
