/**
 * Lets the style sheets that the component library makes at run time pass the server's content policy: it gives a nonce
 * to most of them, but not to those with which it locks scrolling and measures. Whoever can run a script here could read
 * the nonce anyway.
 */
const nonce = document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce
type Create = (name: string, options?: ElementCreationOptions) => HTMLElement
const page: { createElement: Create } = document
const create: Create = page.createElement.bind(document)

page.createElement = (name, options) => {
  const element = create(name, options)
  if (nonce && element instanceof HTMLStyleElement) element.nonce = nonce
  return element
}
