import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'
import { inOrder, type Id, type Numbers, type PlateEdit, type Scheme, type Within } from '../project'
import { gapOf, loopArea, placePoint, rectOf, type Placement, type Region, type Vec2 } from '../solid'
import type { PlateChange } from '../slice'

/** What differs on a level from masses that give their whole cut to their own use. The same object while none of it changes. */
export interface Special {
  /** another use, by mass */
  uses: ReadonlyMap<Id, Id>
  cores: ReadonlySet<Id>
  changes: ReadonlyMap<Id, readonly PlateChange[]>
  /** masses that take floor off on this level */
  voids: readonly MassForm[]
}

/** Keeps the last value of what is named, until an entry of `from` differs: as a study's cache does. */
type Lately = <T>(name: string, from: readonly unknown[], make: () => T) => T

/** A level on which nothing differs. */
export const PLAIN: Special = { uses: new Map(), cores: new Set(), changes: new Map(), voids: [] }

/** Returns true for a mass that is no void: what stands there. */
export const givesFloor = (scheme: Scheme, { id }: Pick<MassForm, 'id'>): boolean => scheme.masses[id]?.gives !== 'void'

/** m above the datum: the highest of what stands there; voids do not. */
export const topOf = ({ scheme, forms }: { scheme: Scheme; forms: readonly MassForm[] }): number =>
  forms.reduce((top, f) => (givesFloor(scheme, f) ? Math.max(top, f.top) : top), 0)

/** What differs, by level; PLAIN where nothing does. `takers` are all masses that take a level, voids too. */
export function specials(
  scheme: Scheme,
  numbers: Numbers,
  levels: readonly LevelHeight[],
  forms: readonly MassForm[],
  takers: ReadonlyMap<Id, readonly MassForm[]>,
  lately: Lately,
): (level: Id) => Special {
  const edits = inOrder(scheme.plateEdits)
  const odd = forms.filter((f) => scheme.masses[f.id]?.gives || scheme.masses[f.id]?.storeyUses?.length)
  if (edits.length + odd.length === 0) return () => PLAIN
  const places = new Map(forms.map((f) => [f.id, scheme.masses[f.id]]))
  return (level) => {
    const here = takers.get(level) ?? []
    const changed = edits.filter((e) => e.levels.includes(level) && places.has(e.mass))
    const mine = here.filter((f) => odd.includes(f) || changed.some((e) => e.mass === f.id))
    if (mine.length === 0) return PLAIN
    const from = [levels, numbers, null, ...mine, null, ...mine.map((f) => scheme.masses[f.id]), null, ...changed]
    return lately(`special ${level}`, from, () => specialOf(scheme, numbers, levels, level, mine, changed))
  }
}

function specialOf(
  scheme: Scheme,
  numbers: Numbers,
  levels: readonly LevelHeight[],
  level: Id,
  forms: readonly MassForm[],
  edits: readonly PlateEdit[],
): Special {
  const uses = new Map<Id, Id>()
  const changes = new Map<Id, PlateChange[]>()
  const heightOf = (id: Id) => levels.find((l) => l.id === id)?.height ?? 0
  const z = heightOf(level)
  for (const { id } of forms)
    for (const { use, from, to } of scheme.masses[id]?.storeyUses ?? []) {
      const [a, b] = [heightOf(from), heightOf(to)]
      if (z >= Math.min(a, b) && z <= Math.max(a, b)) uses.set(id, use)
    }
  for (const edit of edits) {
    const form = forms.find((f) => f.id === edit.mass)
    const mass = scheme.masses[edit.mass]
    if (!form || !mass) continue
    const { does } = edit
    const change: PlateChange =
      does.kind === 'inset'
        ? { id: edit.id, kind: 'inset', by: numbers.length(does.by) }
        : {
            id: edit.id,
            kind: 'part',
            region: withinRegion(
              does.within,
              {
                x: numbers.length(mass.place.x),
                y: numbers.length(mass.place.y),
                z: 0,
                turn: numbers.angle(mass.place.turn),
              },
              form,
            ),
            use: does.kind === 'use' ? does.use : null,
          }
    changes.set(edit.mass, [...(changes.get(edit.mass) ?? []), change])
  }
  const gives = (f: MassForm, what: 'void' | 'core') => scheme.masses[f.id]?.gives === what
  return {
    uses,
    changes,
    cores: new Set(forms.filter((f) => gives(f, 'core')).map((f) => f.id)),
    voids: forms.filter((f) => gives(f, 'void')),
  }
}

/** The part of a plate as a region in the world; what lies left of a line goes on beyond the form. */
export function withinRegion(within: Within, at: Placement, form: Pick<MassForm, 'rect'>): Region {
  const place = (p: Vec2) => placePoint(p, at)
  if (within.kind === 'outline') {
    const loop = within.points.map(([x, y]) => place([x, y]))
    return [loopArea(loop) < 0 ? loop.reverse() : loop]
  }
  const [a, b] = [place([...within.a]), place([...within.b])]
  const { x0, y0, x1, y1 } = rectOf([[a, b, [form.rect.x0, form.rect.y0], [form.rect.x1, form.rect.y1]]])
  const far = 2 * gapOf([x0, y0], [x1, y1])
  const long = gapOf(a, b)
  const [ux, uy] = [(b[0] - a[0]) / long, (b[1] - a[1]) / long]
  const along = (p: Vec2, k: number): Vec2 => [p[0] + ux * k, p[1] + uy * k]
  const left = (p: Vec2): Vec2 => [p[0] - uy * far, p[1] + ux * far]
  const [from, to] = [along(a, -far), along(a, far)]
  return [[from, to, left(to), left(from)]]
}
