import { sessionList as msg } from '../../core/messages/en/accounts.ts'

/** The browser, as far as it tells. */
export function browserOf(agent: string): string {
  const program = /Edg\//.test(agent)
    ? msg.edge
    : /Firefox\//.test(agent)
      ? msg.firefox
      : /Chrom(e|ium)\//.test(agent)
        ? msg.chromeOrChromium
        : /Safari\//.test(agent)
          ? msg.safari
          : null
  const system = /Android/.test(agent)
    ? msg.android
    : /iPhone|iPad/.test(agent)
      ? 'iOS'
      : /Windows/.test(agent)
        ? msg.windows
        : /Mac OS/.test(agent)
          ? 'macOS'
          : /Linux/.test(agent)
            ? msg.linux
            : null
  return program
    ? `${program}${system ? msg.on(system) : ''}`
    : agent.slice(0, 40) || msg.unknownBrowser
}
