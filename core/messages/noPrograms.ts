/** In place of `programs.ts` in the interface (vite.config.ts): texts that it never shows are not loaded. */
export const programs = {}
