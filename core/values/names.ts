/** The names of things. */
export const namesOf = (things: Record<string, { name: string }>): string[] => Object.values(things).map((t) => t.name)

/** A name that none of the taken ones is, whatever the case: the wish itself, else the first of `say(wish, 2)`, `say(wish, 3)` ... */
export function freeName(
  wish: string,
  taken: Iterable<string>,
  say: (wish: string, n: number) => string = (w, n) => `${w} ${n}`,
): string {
  const known = new Set([...taken].map((t) => t.toLowerCase()))
  let name = wish
  for (let n = 2; known.has(name.toLowerCase()); n++) name = say(wish, n)
  return name
}

/** The first free one of "stem 1", "stem 2" ..., counted from `from`; `join` stands between the two. */
export function numberedName(stem: string, taken: Iterable<string>, from = 1, join = ' '): string {
  return freeName(`${stem}${join}${from}`, taken, (_, n) => `${stem}${join}${from + n - 1}`)
}
