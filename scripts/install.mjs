// What a machine with only Node and apt is missing: Debian's packages, and the npm packages.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { accessSync, constants, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { delimiter, dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { setup } from '../core/messages/en/setup.mjs'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')

const ARCHITECTURES = { x64: 'x86_64', arm64: 'aarch64' }
/** A file of the libraries of this machine. */
const library = (path) =>
  `/usr/lib/${ARCHITECTURES[process.arch] ?? process.arch}-linux-gnu/${path}`

/** Debian packages by the file whose presence shows that they are there. */
const debian = {
  'mariadb-server': ['mariadbd', 'mariadb-install-db'],
  ffmpeg: ['ffmpeg', 'ffprobe'],
  chromium: ['/usr/bin/chromium'],
  curl: ['curl'],
  unzip: ['unzip'],
  // GStreamer's RTSP server, as a camera.
  'gir1.2-gst-rtsp-server-1.0': [library('girepository-1.0/GstRtspServer-1.0.typelib')],
  'python3-gi': ['/usr/lib/python3/dist-packages/gi/__init__.py'],
  'gstreamer1.0-plugins-base': [library('gstreamer-1.0/libgstvideotestsrc.so')],
  'gstreamer1.0-plugins-good': [library('gstreamer-1.0/libgstrtp.so')],
  'gstreamer1.0-plugins-bad': [library('gstreamer-1.0/libgstx265.so')],
  // Readers of the files of a handover record.
  'poppler-utils': ['pdfinfo', 'pdftotext', 'pdffonts', 'pdftoppm', 'pdftohtml'],
  'libxml2-utils': ['xmllint'],
  'python3-icalendar': ['/usr/lib/python3/dist-packages/icalendar/__init__.py'],
  'python3-openpyxl': ['/usr/lib/python3/dist-packages/openpyxl/__init__.py'],
  'python3-junitparser': ['/usr/lib/python3/dist-packages/junitparser/__init__.py'],
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
  if (result.error) throw new Error(setup.cannotStart(command, result.error.message))
  if (result.status !== 0)
    throw new Error(setup.exited([command, ...args].join(' '), result.status))
}

/** Installs those of the named Debian packages that are missing. Needs root or sudo only when one is. */
export function installDebian(names) {
  const missing = names.filter((name) => !debian[name].every(present))
  if (!missing.length) return
  process.stderr.write(`${setup.installingDebian(missing)}\n`)
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
    throw new Error(setup.byHand(error.message, missing), {
      cause: error
    })
  }
  const still = missing.filter((name) => !debian[name].every(present))
  if (still.length)
    throw new Error(
      setup.notThere(
        still,
        still.flatMap((n) => debian[n].filter((f) => !present(f)))
      )
    )
}

/** Installs the npm packages unless those of the present lock file are there. */
export async function installPackages({ quiet = false } = {}) {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules', '.wardoptic-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  process.stderr.write(`${setup.installingPackages}\n`)
  run('npm', ['ci', '--no-audit', '--no-fund', ...(quiet ? ['--silent'] : ['--loglevel=error'])], {
    quiet,
    env: { NODE_ENV: 'development' }
  })
  mkdirSync(dirname(stamp), { recursive: true })
  writeFileSync(stamp, lock)
}
