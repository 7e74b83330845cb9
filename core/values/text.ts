/** Halves of a pair of code units that stand alone: no text has them, and no file can be written with them. */
const LONE = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g
// What a screen cannot show: control characters, and marks that turn the direction of what follows.
// eslint-disable-next-line no-control-regex
const UNSEEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u202a-\u202e\u2066-\u2069\ufffe\uffff]/g

/** Whether all of a text can be shown and written. */
export const isPlainText = (text: string): boolean => text.search(LONE) < 0 && text.search(UNSEEN) < 0

/** The text without what can be neither shown nor written. */
export const plainText = (text: string): string => text.replace(LONE, '').replace(UNSEEN, '')

/** A short stand-in for a long text (53 bits; the mixing of "cyrb53", public domain). */
export function fingerprint(text: string): string {
  let [h, k] = [0xdeadbeef, 0x41c6ce57]
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    h = Math.imul(h ^ code, 2654435761)
    k = Math.imul(k ^ code, 1597334677)
  }
  h = Math.imul(h ^ (h >>> 16), 2246822507) ^ Math.imul(k ^ (k >>> 13), 3266489909)
  return (4294967296 * (2097151 & k) + (h >>> 0)).toString(36)
}

/** A text that begins with a capital, as a sentence does. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
