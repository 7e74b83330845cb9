import type { Picked, Shows } from '../app/view-slice'
import type { Colours } from './colours'
import type { Marked } from './drawing/told'
import { stageGeometry, type StoredView } from './geometry-store'
import type { BufferGeometry } from 'three'
import { batchOf, facesOfBits, type Batch, HERE } from './batches'
import { joined, type Placed } from './placed'
import type { Spot } from './spot'
import { spotDrawn } from './spots'
import type { Palette } from './theme'

export const NONE = new Float32Array()
/** Nothing is picked, pointed at, or lit up. */
export const UNMARKED: Marked = {
  picked: { kind: 'nothing' },
  hover: null,
  spots: [],
  hoverSpot: null,
  lit: null,
  behind: null,
}

/** Masses that parts were made of: shown as an outline behind them. */
export function madeOf(view: StoredView): Placed[] {
  const made = new Set(view.parts.filter((p) => p.mesh).map((p) => p.mass))
  return massItems(view, (id) => made.has(id))
}

/** At the Fabric desk parts stand for the masses they were made of; elsewhere the masses stand for themselves. What is seen through, and what stands around, is drawn apart. */
export function solids(
  view: StoredView,
  fabric: boolean,
  palette: Palette,
  shows: Shows,
  colours: Colours | null,
): { solid: Placed[]; clear: Placed[]; around: Placed[] } {
  const parts = fabric && shows.fabric
  const made = new Set(parts ? view.parts.filter((p) => p.mesh).map((p) => p.mass) : [])
  const see = shows.masses === 'see-through'
  const dressed = (items: Placed[]) =>
    items.map((item): Placed => {
      const mass = view.masses.find((m) => m.id === item.owner)
      const own = colours?.masses[item.owner]
      return own
        ? {
            ...item,
            colour: own.whole?.colour ?? null,
            faceColours: mass?.faces.map((f) => own.faces[f.name]?.colour ?? null) ?? [],
          }
        : item
    })
  // What is a void is seen through: it stands for what is not there.
  const voids = new Set(view.masses.filter((m) => m.gives === 'void').map((m) => m.id))
  const clearMass = (id: string) => voids.has(id) || (colours?.masses[id]?.whole?.opacity ?? 1) < 1
  const masses = shows.masses === 'hidden' ? [] : dressed(massItems(view, (id) => see || !made.has(id)))
  const partItems = parts
    ? view.parts.flatMap((p): (Placed & { clear: boolean })[] => {
        const geometry = stageGeometry.get(p.mesh)
        const material = colours?.kinds[p.kind] ?? null
        return geometry
          ? [
              {
                owner: p.id,
                geometry,
                at: HERE,
                tint: p.bond.status === 'bonded' || p.bond.left ? null : palette.warn,
                strength: p.bond.status === 'loose' ? 0.7 : 0.32,
                colour: material?.colour ?? null,
                clear: (material?.opacity ?? 1) < 1,
              },
            ]
          : []
      })
    : []
  return {
    solid: [...partItems.filter((p) => !p.clear), ...(see ? [] : masses.filter((m) => !clearMass(m.owner)))],
    clear: [...partItems.filter((p) => p.clear), ...(see ? masses : masses.filter((m) => clearMass(m.owner)))],
    around: shows.context ? paled(dressed(contextItems(view)), palette) : [],
  }
}

export const paled = (items: Placed[], palette: Palette): Placed[] =>
  items.map((item) => ({ ...item, tint: palette.paper, strength: 0.6 }))
/** The view without what is hidden. */
export function without(view: StoredView, hidden: readonly string[], shows: Shows): StoredView {
  if (hidden.length === 0 && shows.fabric) return view
  const gone = new Set(hidden)
  return {
    ...view,
    masses: view.masses.filter((m) => !gone.has(m.id)),
    parts: view.parts.filter((p) => !gone.has(p.id)),
  }
}

export const contextItems = ({ masses, ground }: StoredView): Placed[] => [
  ...masses
    .filter((m) => m.context)
    .flatMap((m): Placed[] => {
      const geometry = stageGeometry.get(m.body)
      return geometry ? [{ owner: m.id, geometry, at: m.at, tint: null }] : []
    }),
  ...ground.neighbours.flatMap((n): Placed[] => {
    const geometry = stageGeometry.get(n.body)
    return geometry ? [{ owner: n.id, geometry, at: HERE, tint: null }] : []
  }),
]

export function massItems(view: StoredView, keep: (id: string) => boolean): Placed[] {
  return view.masses
    .filter((m) => !m.context && keep(m.id))
    .flatMap((m): Placed[] => {
      const geometry = stageGeometry.get(m.body)
      return geometry ? [{ owner: m.id, geometry, at: m.at, tint: null }] : []
    })
}

/** The masses and parts that are picked; of a repeat or rule all that it makes, or the one that is picked of it. */
export const idsOf = (view: StoredView, picked: Picked): string[] =>
  picked.kind === 'repeat' || picked.kind === 'rule'
    ? view.masses.flatMap((m) =>
        m.grown?.by === picked.kind &&
        picked.ids.includes(m.grown.id) &&
        (picked.one === null || m.grown.key === picked.one)
          ? [m.id]
          : [],
      )
    : picked.kind === 'mass' || picked.kind === 'part'
      ? picked.ids
      : []

export function highlight(view: StoredView, ids: string[], palette: Palette): Batch {
  const wanted = new Set(ids)
  const parts = view.parts
    .filter((p) => wanted.has(p.id))
    .flatMap((p): Placed[] => {
      const geometry = stageGeometry.get(p.mesh)
      return geometry ? [{ owner: p.id, geometry, at: HERE, tint: null }] : []
    })
  return batchOf([...massItems(view, (id) => wanted.has(id)), ...parts], palette)
}

/** m from storey to storey, as most of them are */
export function usualStorey(view: StoredView): number {
  const zs = view.levels.filter((l) => l.kind === 'storey').map((l) => l.height)
  const rises = zs
    .slice(1)
    .map((z, i) => z - (zs[i] ?? 0))
    .sort((a, b) => a - b)
  return rises[Math.floor(rises.length / 2)] ?? 10
}

export const heightOf = (view: StoredView, level: string) => view.levels.find((l) => l.id === level)?.height ?? 0

/** Picked faces, filled, and the lines of all picked spots. */
export function spotsBatch(
  view: StoredView,
  spots: readonly Spot[],
): { faces: BufferGeometry | null; lines: Float32Array } {
  const all = spots.map((s) => spotDrawn(view, s))
  const bits = joined(all.map((d) => d.bits))
  return { faces: bits.length ? facesOfBits(bits) : null, lines: joined(all.map((d) => d.lines)) }
}
