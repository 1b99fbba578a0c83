// What the interface shows itself with, as a few files, for its tests. Jest reads each file of a
// package anew for each file of tests: some two thousand of them were two fifths of a run.
import { createHash } from 'node:crypto'
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync
} from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { root } from './install.mjs'

/** All of them together: two copies of React, or of a context, would not know each other. */
const MODULES = [
  ...['antd', 'antd/locale/en_GB', 'antd/es/input/TextArea', '@ant-design/icons'],
  ...['@rc-component/picker/generate/dayjs', '@tanstack/react-query', '@tanstack/react-virtual'],
  ...['react-router', 'react-error-boundary', 'recharts', 'konva/lib/Core.js'],
  'react-konva/lib/ReactKonvaCore',
  ...['Arc', 'Circle', 'Label', 'Line', 'Path', 'Rect', 'Ring', 'Text'].map(
    (shape) => `konva/lib/shapes/${shape}.js`
  ),
  ...['@testing-library/react', '@testing-library/user-event']
]
const COMMON_JS = [
  ...['react', 'react/jsx-runtime', 'react-dom', 'react-dom/client'],
  ...['dayjs', 'dayjs/plugin/utc']
]
const PACKAGES = [...MODULES, ...COMMON_JS]
const cache = join(root, 'dist/test-packages')
const fileOf = (name) => name.replace(/\W+/g, '-').replace(/^-/, '')
const require = createRequire(import.meta.url)

/** A module that gives what a package gives. One in CommonJS has no names that a bundle could pass on. */
const entry = (name) => {
  if (MODULES.includes(name))
    return `export * from '${name}'\nimport * as all from '${name}'\nexport default all.default`
  const names = Object.keys(require(name)).filter((key) => key !== 'default')
  return `import all from '${name}'\nexport default all\nexport const { ${names.join(', ')} } = all`
}

async function bundle(folder) {
  const { build } = await import('vite')
  const virtual = '\0package:'
  await build({
    configFile: false,
    root,
    mode: 'test',
    // It warns of modules that have no default.
    logLevel: 'error',
    define: { 'process.env.NODE_ENV': '"test"' },
    plugins: [
      {
        name: 'packages',
        enforce: 'pre',
        resolveId: (id) => (id.startsWith('package:') ? `\0${id}` : null),
        load: (id) => (id.startsWith(virtual) ? entry(id.slice(virtual.length)) : null)
      }
    ],
    build: {
      outDir: folder,
      emptyOutDir: true,
      copyPublicDir: false,
      target: 'node20',
      minify: false,
      modulePreload: false,
      rolldownOptions: {
        input: Object.fromEntries(PACKAGES.map((name) => [fileOf(name), `package:${name}`])),
        preserveEntrySignatures: 'strict',
        output: { format: 'es', entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' }
      }
    }
  })
}

/**
 * Makes the files when the packages have changed.
 *
 * @returns where Jest finds each package
 */
export async function testPackages() {
  const digest = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .update(readFileSync(fileURLToPath(import.meta.url)))
    .digest('hex')
    .slice(0, 16)
  const folder = join(cache, digest)
  if (!existsSync(folder)) {
    mkdirSync(cache, { recursive: true })
    const beside = mkdtempSync(join(cache, 'part-'))
    try {
      await bundle(beside)
      for (const name of readdirSync(cache))
        if (name !== digest && !name.startsWith('part-'))
          rmSync(join(cache, name), { recursive: true, force: true })
      renameSync(beside, folder)
    } catch (error) {
      // Whoever was quicker has made the same.
      if (!existsSync(folder)) throw error
    } finally {
      rmSync(beside, { recursive: true, force: true })
    }
  }
  return Object.fromEntries(
    PACKAGES.map((name) => [
      `^${name.replaceAll('.', '\\.')}$`,
      join(folder, `${fileOf(name)}.mjs`)
    ])
  )
}
