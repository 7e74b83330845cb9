import type { LevelHeight } from '../levels'
import type { Envelope } from '../project'

/** The height (m above the datum) that forms may reach: the site's own limit, or else a mark that is called so; null where none is set. */
export function permittedHeight(
  envelope: Pick<Envelope, 'limit'> | null,
  levels: LevelHeight[],
): { height: number; by: 'site' | 'mark'; mark: LevelHeight | null } | null {
  if (envelope && envelope.limit !== null) return { height: envelope.limit, by: 'site', mark: null }
  const mark = levels.find((l) => l.kind === 'mark' && /\bpermitted\b/i.test(l.name))
  return mark ? { height: mark.height, by: 'mark', mark } : null
}
