import './coverageSession.mjs'
import vm from 'node:vm'
import { TestEnvironment } from 'jest-environment-node'

const contextify = vm.createContext

/**
 * Jest's own environment for Node, in a context without interceptors. In the usual one each read of a global
 * (`Math`, `Float64Array`) is looked up through an object outside of it, which is some hundred times slower; a test
 * that paints or tracks reads them in every pixel.
 */
export default class PlainContext extends TestEnvironment {
  constructor(config, context) {
    vm.createContext = () => contextify(vm.constants.DONT_CONTEXTIFY)
    try {
      super(config, context)
    } finally {
      vm.createContext = contextify
    }
    // Texts are read while modules load, those of the setup files too: a test in another language says so in its docblock.
    const [language] = [context.docblockPragmas.language].flat()
    if (language) this.global.process.env.WARDOPTIC_LANGUAGE = language
  }
}
