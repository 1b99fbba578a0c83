/** MariaDB keeps JSON as text, and mysql2 hands some of it out already read. */
export const parsed = <T>(json: unknown): T =>
  (typeof json === 'string' ? JSON.parse(json) : json) as T
