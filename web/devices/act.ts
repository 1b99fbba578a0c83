/** What a part of the sheet asks of the server; its trouble is shown at the top. */
export type Act = (what: string, work: () => Promise<unknown>) => Promise<void>
