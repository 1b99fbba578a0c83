import './coverageSession.mjs'
import { TestEnvironment } from 'jest-environment-jsdom'

/** Node's own would keep the process of the tests from ending. */
class Channel {
  port1 = { onmessage: null }
  port2 = { postMessage: (data) => setTimeout(() => this.port1.onmessage?.({ data })) }
}

/**
 * What browsers have and jsdom does not; nothing is laid out there, so nothing is ever resized or
 * wider than a query.
 */
export default class Browser extends TestEnvironment {
  async setup() {
    await super.setup()
    const { global } = this
    Object.assign(global, {
      TextEncoder,
      TextDecoder,
      TextDecoderStream,
      ReadableStream,
      structuredClone,
      Request,
      Response,
      Headers,
      fetch
    })
    global.matchMedia ??= () => ({
      matches: false,
      addEventListener() {},
      removeEventListener() {}
    })
    global.ResizeObserver ??= class {
      observe() {}
      unobserve() {}
      disconnect() {}
    }
    // Of pseudo-elements, which it has none of.
    const { getComputedStyle } = global
    global.getComputedStyle = (element) => getComputedStyle(element)
    global.MessageChannel ??= Channel
    global.PointerEvent ??= class extends global.MouseEvent {}
    global.Element.prototype.setPointerCapture ??= () => {}
  }
}
