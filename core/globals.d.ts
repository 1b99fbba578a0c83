/** What browsers and Node have alike, and all that core/ takes from its surroundings. */
declare class URL {
  constructor(url: string, base?: string)
  static canParse(url: string, base?: string): boolean
  readonly protocol: string
  readonly host: string
  readonly hostname: string
  readonly port: string
  readonly pathname: string
  readonly origin: string
  readonly href: string
  readonly username: string
  readonly password: string
}
declare class URLSearchParams {
  constructor(query: string)
  get(name: string): string | null
}
declare class TextEncoder {
  encode(text: string): Uint8Array<ArrayBuffer>
}
declare class TextDecoder {
  constructor(encoding?: string, options?: { fatal?: boolean })
  decode(bytes: Uint8Array): string
}
declare function btoa(text: string): string
declare function atob(base64: string): string
