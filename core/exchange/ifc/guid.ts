const DIGITS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$'

/** The 22-character form of an id (IfcGloballyUniqueId): a UUID's own bits; any other id is spread over 128 bits, always the same way. */
export function ifcGuid(id: string): string {
  const hex = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(id) ? id.replaceAll('-', '') : spread(id)
  let bits = BigInt(`0x${hex}`)
  let out = ''
  for (let i = 0; i < 22; i++) {
    out = (DIGITS[Number(bits & 63n)] ?? '0') + out
    bits >>= 6n
  }
  return out
}

/** 128 bits of a text, by four FNV-1a hashes with different starts. */
function spread(text: string): string {
  return [0x811c9dc5, 0x01000193, 0x9e3779b9, 0x85ebca6b]
    .map((start) => {
      let hash = start
      for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 16777619)
      return (hash >>> 0).toString(16).padStart(8, '0')
    })
    .join('')
}
