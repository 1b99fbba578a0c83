// What a machine with only Node and apt is missing: Debian's packages, and the npm packages.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { accessSync, constants, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { delimiter, dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')

/** Debian packages by the file whose presence shows that they are there. */
const debian = {
  'mariadb-server': ['mariadbd', 'mariadb-install-db'],
  ffmpeg: ['ffmpeg', 'ffprobe'],
  chromium: ['/usr/bin/chromium'],
  curl: ['curl'],
  'opencv-doc': ['/usr/share/doc/opencv-doc/examples/data/vtest.avi']
}

const present = (file) => {
  const places = file.startsWith('/')
    ? [file]
    : [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/sbin'].map((d) => join(d, file))
  return places.some((place) => {
    try {
      accessSync(place, file.startsWith('/') ? constants.R_OK : constants.X_OK)
      return true
    } catch {
      return false
    }
  })
}

const run = (command, args, options = {}) => {
  const result = spawnSync(command, args, {
    stdio: ['ignore', options.quiet ? 'pipe' : 2, 2],
    cwd: root,
    env: { ...process.env, ...options.env }
  })
  if (result.error) throw new Error(`${command} cannot be started: ${result.error.message}`)
  if (result.status !== 0)
    throw new Error(`${command} ${args.join(' ')} ended with code ${result.status}`)
}

/** Installs those of the named Debian packages that are missing. Needs root or sudo only when one is. */
export function installDebian(names) {
  const missing = names.filter((name) => !debian[name].every(present))
  if (!missing.length) return
  process.stderr.write(`Installing Debian's ${missing.join(', ')} …\n`)
  const asRoot = process.getuid?.() === 0
  const apt = (...args) =>
    run(asRoot ? 'apt-get' : 'sudo', asRoot ? args : ['apt-get', ...args], {
      quiet: true,
      env: { DEBIAN_FRONTEND: 'noninteractive' }
    })
  try {
    apt('update', '-q')
    // Documentation is left out on slim images; opencv-doc's footage is what we need of it.
    apt(
      'install',
      '-y',
      '-q',
      '--no-install-recommends',
      '-o',
      'Dpkg::Options::=--path-include=/usr/share/doc/opencv-doc/*',
      ...missing
    )
  } catch (error) {
    throw new Error(`${error.message}. Install by hand: apt-get install ${missing.join(' ')}`, {
      cause: error
    })
  }
  const still = missing.filter((name) => !debian[name].every(present))
  if (still.length)
    throw new Error(
      `apt-get installed ${still.join(', ')}, but ${still.flatMap((n) => debian[n].filter((f) => !present(f))).join(', ')} is not there`
    )
}

/** Installs the npm packages unless those of the present lock file are there. */
export async function installPackages({ quiet = false } = {}) {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules', '.wardoptic-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  process.stderr.write('Installing the npm packages …\n')
  run('npm', ['ci', '--no-audit', '--no-fund', ...(quiet ? ['--silent'] : ['--loglevel=error'])], {
    quiet,
    env: { NODE_ENV: 'development' }
  })
  mkdirSync(dirname(stamp), { recursive: true })
  writeFileSync(stamp, lock)
}
