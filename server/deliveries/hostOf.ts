/** The host of an address: all that is told of where a webhook goes, as addresses may carry secrets. */
export const hostOf = (url: string): string => (URL.canParse(url) ? new URL(url).host : url)
