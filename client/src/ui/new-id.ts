/** A version 7 identifier: whoever makes a thing names it, so that the same thing sent twice lands once. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  let time = Date.now()
  for (let at = 5; at >= 0; at--) {
    bytes[at] = time % 256
    time = Math.floor(time / 256)
  }
  bytes[6] = (bytes[6]! & 0x0f) | 0x70
  bytes[8] = (bytes[8]! & 0x3f) | 0x80
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}
