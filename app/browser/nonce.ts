/** The nonce that this page's scripts came with: style sheets made in the page need it, too. */
export function pageNonce(): string {
  return document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce ?? ''
}
