/** Halves of a pair of code units that stand alone: no text has them, and no file can be written with them. */
const LONE = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g
// What a screen cannot show: control characters, and marks that turn the direction of what follows.
// eslint-disable-next-line no-control-regex
const UNSEEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u202a-\u202e\u2066-\u2069\ufffe\uffff]/g

/** Whether all of a text can be shown and written. */
export const isPlainText = (text: string): boolean => text.search(LONE) < 0 && text.search(UNSEEN) < 0

/** The text without what can be neither shown nor written. */
export const plainText = (text: string): string => text.replace(LONE, '').replace(UNSEEN, '')
