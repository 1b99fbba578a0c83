import './coverageSession.mjs'
import { TestEnvironment } from 'jest-environment-jsdom'

/** Node's own would keep the process of the tests from ending. */
class Channel {
  port1 = { onmessage: null }
  port2 = { postMessage: (data) => setTimeout(() => this.port1.onmessage?.({ data })) }
}

/** What of styles tests can tell: whether something is shown, and can be pressed. */
const TOLD = /[{;\s](display|visibility|pointer-events|content)\s*:/

/**
 * Takes out of style sheets, once each, the rules that no test can tell: comparing each element with all rules of the
 * component library took two thirds of the time of a long form.
 */
function thinStyles({ styleSheets }, known) {
  for (const sheet of styleSheets) {
    if (known.has(sheet)) continue
    known.add(sheet)
    for (let i = sheet.cssRules.length - 1; i >= 0; i--)
      if (!TOLD.test(sheet.cssRules[i].cssText)) sheet.deleteRule(i)
  }
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
    const { getComputedStyle } = global
    const thinned = new WeakSet()
    global.getComputedStyle = (element) => {
      thinStyles(global.document, thinned)
      // Of pseudo-elements it has no styles.
      return getComputedStyle(element)
    }
    global.MessageChannel ??= Channel
    global.PointerEvent ??= class extends global.MouseEvent {}
    global.Element.prototype.setPointerCapture ??= () => {}
  }
}
