/**
 * Lets the style sheets that the component library makes at run time pass the server's content policy: it gives a nonce
 * to most of them, but not to those with which it locks scrolling and measures. Whoever can run a script here could read
 * the nonce anyway.
 */
const nonce = document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce
const create = document.createElement.bind(document) as (
  name: string,
  options?: ElementCreationOptions
) => HTMLElement

document.createElement = ((name: string, options?: ElementCreationOptions) => {
  const element = create(name, options)
  if (nonce && element instanceof HTMLStyleElement) element.nonce = nonce
  return element
}) as typeof document.createElement
