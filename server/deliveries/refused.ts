/** What will not become better by being tried again. */
export class Refused extends Error {}
