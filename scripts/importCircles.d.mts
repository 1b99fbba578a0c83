export function circlesIn(edges: ReadonlyMap<string, readonly string[]>): string[][]
export function importsOf(root: string): Map<string, string[]>
