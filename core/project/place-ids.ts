import { isDict } from '../values'

/**
 * Until file version 4 and log format 1, layers of a build-up and own facts of a project had no ids, only their places in their lists.
 * What reads older data gives them the ids that their places say, everywhere the same.
 */
export const LAYERS = { key: 'layers', word: 'layer' } as const
export const OWN_FACTS = { key: 'custom', word: 'fact' } as const

/** The id of the thing at a place of an older list; places count from 0. */
export const placeId = (word: string, place: number): string => `${word}-${place + 1}`

/** A list of older things with their ids; anything else stays as it is, for the schemas to refuse. */
export const withPlaceIds = (list: unknown, word: string): unknown =>
  Array.isArray(list)
    ? list.map((thing: unknown, i) => (isDict(thing) && !('id' in thing) ? { id: placeId(word, i), ...thing } : thing))
    : list

/** What holds such a list (a build-up, the facts), or some of its fields, with the ids of the list's things. */
export const withIdsIn = (holder: unknown, { key, word }: { key: string; word: string }): unknown =>
  isDict(holder) && key in holder ? { ...holder, [key]: withPlaceIds(holder[key], word) } : holder

/** The plain data of an older project with all these ids. */
export function withAllPlaceIds(project: unknown): unknown {
  if (!isDict(project)) return project
  const next = { ...project }
  if ('facts' in next) next.facts = withIdsIn(next.facts, OWN_FACTS)
  if (isDict(next.buildUps))
    next.buildUps = Object.fromEntries(
      Object.entries(next.buildUps).map(([id, buildUp]) => [id, withIdsIn(buildUp, LAYERS)]),
    )
  return next
}
