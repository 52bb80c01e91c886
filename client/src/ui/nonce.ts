import { setNonce } from 'get-nonce'

/** The page's own nonce for style elements: the security policy lets through those that carry it and no others. */
export const styleNonce = () =>
  document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content || undefined

/** What locks the page's scrolling behind a sheet writes a style element and asks here for its nonce. */
export function shareNonce() {
  const nonce = styleNonce()
  if (nonce) setNonce(nonce)
}
