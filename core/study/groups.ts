import type { MassForm } from '../form'
import type { Memo } from '../project'
import {
  areaOf,
  placePoint,
  placeSolid,
  surfaceOf,
  unionFigures,
  unionVolume,
  uniteRegions,
  type Region,
} from '../solid'

/** Figures of masses that may meet: what they share counts once. Masses given in one group meet each other. */
export class Groups {
  constructor(private readonly memo: Memo) {}

  /** Whether the volume or the plan of those that may meet is known already, or quickly told: of one, unless it is twisted. */
  knows(group: MassForm[], what: 'volume' | 'footprints'): boolean {
    const [first, second] = group
    if (!first || this.memo.has(first, what, group)) return true
    return !second && (what === 'volume' || first.body.turned === null)
  }

  /** m3 of masses that touch, counted once. Masses given in one group meet each other. */
  volume(group: MassForm[]): number {
    const [first, ...rest] = group
    if (!first) return 0
    if (rest.length === 0) return first.body.volume
    return this.memo.keep(first, 'volume', group, () => unionVolume(together(group)))
  }

  /** m2 of the outer surface and m3 of masses that may meet: what one of them covers of another is none. */
  figures(group: MassForm[]): { surface: number; volume: number } {
    const [first, ...rest] = group
    if (!first) return { surface: 0, volume: 0 }
    const { body } = first
    if (rest.length === 0)
      return this.memo.keep(body, 'figures', [], () => ({ surface: surfaceOf(body.solid), volume: body.volume }))
    return this.memo.keep(first, 'figures', group, () => unionFigures(together(group)))
  }

  /** m2 of the plans of masses that may meet, counted once. */
  footprints(group: MassForm[]): number {
    const [first] = group
    return first
      ? this.memo.keep(first, 'footprints', group, () => areaOf(uniteRegions(group.map((f) => this.footprint(f)))))
      : 0
  }

  /** The plan of a mass where it stands. */
  private footprint(form: MassForm): Region {
    return this.memo.keep(form, 'footprint', [], () =>
      form.body.plan().map((loop) => loop.map((p) => placePoint(p, form.at))),
    )
  }
}

/** The bodies of masses in the frame of the first. */
const together = (group: MassForm[]) => {
  const { at } = group[0] as MassForm
  return group.map((f) => placeSolid(f.body.solid, { ...f.at, x: f.at.x - at.x, y: f.at.y - at.y, z: f.at.z - at.z }))
}
