/** In place of `programs.ts` in the interface (vite.config.ts): what is never said there, nobody has to load. */
export const programs = {}
