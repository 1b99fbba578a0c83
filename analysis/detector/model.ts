import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { GraphModel } from '@tensorflow/tfjs-converter'
import type * as Core from '@tensorflow/tfjs-core'
import { InputError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'

/** A trained network, ready to run on this thread. */
export interface Model {
  /**
   * @param bytes a picture, 0 to 255 @param shape of it, the batch first
   * @param outputs which of its outputs are wanted, by name @param values what the network takes: bytes, so changed
   * @returns these outputs, flat, in that order
   */
  run(
    bytes: Uint8Array,
    shape: [number, number, number, number],
    outputs: string[],
    values?: Values
  ): Float32Array[]
}

/** Values of a picture that a network takes: its bytes times something, and something added. */
interface Values {
  times: number
  plus: number
}

/** How weights of a network are changed, by their name, before it runs. */
export type Changes = Readonly<
  Record<string, (weights: Core.Tensor, core: typeof Core) => Core.Tensor>
>

/** Of a graph model's JSON, what is read here. */
interface GraphFile {
  modelTopology: object
  weightsManifest: { weights: Core.io.WeightsManifestEntry[] }[]
  format: string
  signature: object
}

const require = createRequire(import.meta.url)
/** The folder of what a package gives for Node. */
const distOf = (name: string): string => dirname(require.resolve(name))

let starting: Promise<typeof Core> | undefined

/** TensorFlow.js on WebAssembly: no binary, no download, the same figures on every machine. */
function tensors(): Promise<typeof Core> {
  starting ??= (async () => {
    const core = await import('@tensorflow/tfjs-core')
    const wasm = await import('@tensorflow/tfjs-backend-wasm')
    // The other core is the tracker's.
    wasm.setThreadsCount(1)
    wasm.setWasmPaths(join(distOf('@tensorflow/tfjs-backend-wasm'), '/'))
    await core.setBackend('wasm')
    await core.ready()
    averageByPooling(core)
    return core
  })()
  return starting
}

/**
 * The mean over the whole of a picture is a pooling with one window, which takes a tenth of the time that this
 * backend's own mean takes: it turns the picture round first. Other means stay its own.
 */
function averageByPooling(core: typeof Core): void {
  const mean = core.getKernel('Mean', 'wasm')
  const pool = core.getKernel('AvgPool', 'wasm')
  core.unregisterKernel('Mean', 'wasm')
  core.registerKernel({
    ...mean,
    kernelFunc: (call) => {
      const { shape } = call.inputs.x!
      const { axis, keepDims } = call.attrs as { axis: number | number[]; keepDims?: boolean }
      if (!keepDims || shape.length !== 4 || String(axis) !== '1,2') return mean.kernelFunc(call)
      const filterSize = [shape[1]!, shape[2]!]
      const attrs = { filterSize, strides: 1, pad: 'valid' }
      return pool.kernelFunc({ inputs: call.inputs, backend: call.backend, attrs })
    }
  })
}

/**
 * Reads a network whose weights a package ships.
 *
 * @param changes of its weights; one that the network does not have is a defect
 * @throws InputError when they are not there
 */
export async function loadModel(name: string, changes: Changes = {}): Promise<Model> {
  let graph: GraphFile
  let weights: Buffer
  try {
    const path = join(distOf('@vladmandic/human'), '../models', name)
    graph = JSON.parse(readFileSync(`${path}.json`, 'utf8')) as GraphFile
    weights = readFileSync(`${path}.bin`)
  } catch {
    throw new InputError('', said('clips.detectorIsMissing', name))
  }
  const core = await tensors()
  const { loadGraphModel } = await import('@tensorflow/tfjs-converter')
  const { modelTopology, format, signature } = graph
  const model = await loadGraphModel({
    load: () =>
      Promise.resolve({
        modelTopology,
        format,
        signature,
        weightSpecs: graph.weightsManifest.flatMap((group) => group.weights),
        weightData: weights.buffer.slice(
          weights.byteOffset,
          weights.byteOffset + weights.byteLength
        ) as ArrayBuffer
      })
  })
  for (const [weight, change] of Object.entries(changes)) {
    const now = model.weights[weight]![0]!
    const changed = change(now, core)
    // Made anew: this backend remembers the shape in which a gathered one was worked out, and refuses it as a bias.
    model.weights[weight] = [core.tensor(changed.dataSync(), changed.shape, changed.dtype)]
    core.dispose([now, changed])
  }
  return {
    run: (bytes, shape, outputs, values) => run(core, model, bytes, shape, outputs, values)
  }
}

function run(
  core: typeof Core,
  model: GraphModel,
  bytes: Uint8Array,
  shape: [number, number, number, number],
  outputs: string[],
  values?: Values
): Float32Array[] {
  return core.tidy(() => {
    const raw = core.cast(core.tensor4d(bytes, shape, 'int32'), 'float32')
    const picture = values ? core.add(core.mul(raw, values.times), values.plus) : raw
    const found = model.execute(picture, outputs)
    return (Array.isArray(found) ? found : [found]).map((tensor) =>
      Float32Array.from(tensor.dataSync())
    )
  })
}
