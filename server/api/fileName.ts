/** A name as that of a file, in letters that every system takes. @param instead where nothing of it is left */
export const fileName = (name: string, instead: string): string =>
  name.replace(/[^\w-]+/g, '-').replace(/^-+|-+$/g, '') || instead
