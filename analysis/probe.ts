import { said } from '../core/messages/said.ts'
import { stat } from 'node:fs/promises'
import { InputError } from '../core/errors.ts'
import { inputArguments, output } from './ffmpeg.ts'

/** What a clip is, before any of it has been decoded. */
export interface Footage {
  width: number
  height: number
  /** Frames per second of the file. */
  sourceFps: number
  /** Frames per second that are analysed: the source's, divided by a whole number so that at most 15 remain. */
  fps: number
  /** Seconds, as the file says; null when it does not. */
  duration: number | null
  /** The instant of recording if the file carries it. */
  recordedAt: string | null
}

/** At more than this the analysis sees nothing new of people and vehicles, and takes longer. */
const MAX_ANALYSED_FPS = 15
const MAX_PIXELS = 8192 * 4320

const ratio = (text: string | undefined): number => {
  const [a, b = '1'] = (text ?? '').split('/')
  return Number(b) > 0 ? Number(a) / Number(b) : NaN
}

export const analysedFps = (sourceFps: number): number =>
  sourceFps / Math.ceil(sourceFps / MAX_ANALYSED_FPS - 1e-6)

/**
 * Frames per second. Footage with a gap, or of a varying rate, has an average below the rate at which its pictures
 * mostly come; that is taken from the times of the first pictures then.
 */
async function rateOf(
  video: { avg_frame_rate?: string; r_frame_rate?: string },
  file: string,
  signal?: AbortSignal
): Promise<number> {
  const [average, base] = [ratio(video.avg_frame_rate), ratio(video.r_frame_rate)]
  const usable = average > 0 && average <= 1000
  if (!usable || !(base > 1.1 * average)) return usable ? average : base
  const { out } = await output(
    'ffprobe',
    [
      '-v',
      'error',
      '-select_streams',
      'v:0',
      '-show_entries',
      'packet=pts_time',
      '-of',
      'csv=p=0',
      '-read_intervals',
      '%+60',
      ...inputArguments(file)
    ],
    signal
  )
  const times = out
    .toString('utf8')
    .split('\n')
    .map((line) => parseFloat(line))
    .filter((time) => !Number.isNaN(time))
    .sort((a, b) => a - b)
  const steps = times
    .slice(1)
    .map((time, i) => time - times[i]!)
    .sort((a, b) => a - b)
  const middle = steps[steps.length >> 1]!
  return middle > 0 ? Math.round(1e3 / middle) / 1e3 : average
}

/**
 * Looks at a file as footage.
 *
 * @throws InputError when it is empty or no video, saying what would be right
 */
export async function probe(file: string, name = file, signal?: AbortSignal): Promise<Footage> {
  const { size } = await stat(file).catch((error: NodeJS.ErrnoException) => {
    throw new InputError(
      name,
      error.code === 'ENOENT' ? said('clips.isNotThere') : said('clips.cannotBeRead', error.code)
    )
  })
  if (size === 0) throw new InputError(name, said('clips.isEmptyChooseAVideo'))
  const { code, out, errors } = await output(
    'ffprobe',
    [
      '-v',
      'error',
      '-print_format',
      'json',
      '-show_format',
      '-show_streams',
      ...inputArguments(file)
    ],
    signal
  )
  if (code !== 0) {
    const cut = /moov atom not found|truncat|EBML header|End of file/i.test(errors)
    throw new InputError(name, cut ? said('clips.isCutOffItsIndex') : said('clips.isNotAVideoThat'))
  }
  const info = JSON.parse(out.toString('utf8')) as {
    streams?: {
      codec_type?: string
      width?: number
      height?: number
      avg_frame_rate?: string
      r_frame_rate?: string
      duration?: string
      disposition?: { attached_pic?: number }
    }[]
    format?: { duration?: string; tags?: Record<string, string> }
  }
  const video = info.streams?.find((s) => s.codec_type === 'video' && !s.disposition?.attached_pic)
  if (!video?.width || !video.height) throw new InputError(name, said('clips.hasNoPicturesInIt'))
  if (video.width * video.height > MAX_PIXELS)
    throw new InputError(name, said('clips.isPixelsAtMost', video.width, video.height))
  const sourceFps = await rateOf(video, file, signal)
  if (!(sourceFps > 0 && sourceFps <= 1000))
    throw new InputError(name, said('clips.hasNoUsableFrameRate'))
  const duration = Number(info.format?.duration ?? video.duration)
  const recordedAt = info.format?.tags?.creation_time
  return {
    width: video.width,
    height: video.height,
    sourceFps,
    fps: analysedFps(sourceFps),
    duration: duration > 0 ? duration : null,
    recordedAt:
      recordedAt && !Number.isNaN(Date.parse(recordedAt))
        ? new Date(recordedAt).toISOString()
        : null
  }
}
