// Files that import one another in a circle, in values or in types; one line for each circle.
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { dirname, join, normalize } from 'node:path'
import typescript from 'typescript'

/** Groups of nodes that can be reached from one another, by Tarjan's algorithm (SIAM J. Comput. 1, 1972, p. 146). */
export function circlesIn(edges) {
  const [index, low, stack, found] = [new Map(), new Map(), [], []]
  const visit = (node) => {
    index.set(node, index.size)
    low.set(node, index.get(node))
    stack.push(node)
    for (const next of edges.get(node) ?? []) {
      if (!index.has(next)) visit(next)
      if (stack.includes(next)) low.set(node, Math.min(low.get(node), low.get(next)))
    }
    if (low.get(node) !== index.get(node)) return
    const group = stack.splice(stack.indexOf(node))
    if (group.length > 1) found.push(group.sort())
  }
  for (const node of edges.keys()) if (!index.has(node)) visit(node)
  return found
}

/** What each file of this project imports of it, by path from the root. */
export function importsOf(root) {
  const files = execFileSync('git', ['ls-files', '*.ts', '*.tsx', '*.mts'], {
    cwd: root,
    encoding: 'utf8'
  })
    .trim()
    .split('\n')
  const known = new Set(files)
  return new Map(
    files.map((file) => [
      file,
      typescript
        .preProcessFile(readFileSync(join(root, file), 'utf8'), true, true)
        .importedFiles.map(({ fileName }) => normalize(join(dirname(file), fileName)))
        .filter((to) => known.has(to))
    ])
  )
}
