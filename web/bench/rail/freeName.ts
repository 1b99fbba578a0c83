/** A name of its own for a copy: the same, with the next free number where it is taken. */
export function freeName(name: string, placed: readonly { detection: { name: string } }[]): string {
  const taken = new Set(placed.map((p) => p.detection.name))
  if (!taken.has(name)) return name
  const base = name.replace(/ \d+$/, '')
  let n = 2
  while (taken.has(`${base} ${n}`)) n++
  return `${base} ${n}`
}
