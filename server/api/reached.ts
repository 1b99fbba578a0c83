/** How the server is reached. */
export interface Access {
  /** Over TLS. */
  secure: boolean
  /** Names and addresses under which it is asked at the port that it listens at, in lower case. */
  names: readonly string[]
  /** Other hosts that a request may name, exactly: behind a proxy, the proxy's name and port. */
  fronts: readonly string[]
}

/** For this machine alone. */
export const LOOPBACK: Access = {
  secure: false,
  names: ['127.0.0.1', 'localhost', '[::1]'],
  fronts: []
}
