import { placePoint, type Vec3 } from '@geotome/core/solid'
import type { MassView } from '../worker/protocol'

/** A corner of a soft form's cage, or the middle of one of its edges: m from the view's origin, and the faces that meet there. */
export interface CageJoint {
  kind: 'corner' | 'edge'
  at: Vec3
  ends: Vec3[]
  faces: string[]
}

const known = new WeakMap<MassView, { points: Vec3[]; joints: CageJoint[] }>()

/** The corners and edges of the cage of a soft form; none where a mass is no soft form. What is an image of the rest cannot be held. */
export function cageJoints(mass: MassView): CageJoint[] {
  return laid(mass).joints
}

/** The points of a cage that all of some faces have; null where it is no cage, or has not all of them. */
export function cageCorners(mass: MassView, faces: readonly string[]): Vec3[] | null {
  const { cage } = mass
  const loops = faces.map((name) => cage?.faces.filter((f) => f.name === name).flatMap((f) => f.corners) ?? [])
  if (!cage || loops.some((l) => l.length === 0)) return null
  const { points } = laid(mass)
  return [...new Set(loops[0])].filter((v) => loops.every((l) => l.includes(v))).map((v) => points[v] as Vec3)
}

function laid(mass: MassView): { points: Vec3[]; joints: CageJoint[] } {
  const had = known.get(mass)
  if (had) return had
  const { cage, at } = mass
  const points = (cage?.points ?? []).map(([x, y, z]): Vec3 => [...placePoint([x, y], at), z + at.z])
  const isImage = (v: number) => {
    const { beyond, points: own } = cage ?? { beyond: null, points: [] }
    return beyond !== null && (own[v]?.[beyond.axis] ?? 0) > beyond.at + 1e-6
  }
  const corners = new Map<number, string[]>()
  const edges = new Map<string, { a: number; b: number; faces: string[] }>()
  for (const { name, corners: loop } of cage?.faces ?? [])
    loop.forEach((a, i) => {
      const b = loop[(i + 1) % loop.length] as number
      corners.set(a, [...(corners.get(a) ?? []), name])
      const key = [a, b].sort((p, q) => p - q).join()
      edges.set(key, { a, b, faces: [...(edges.get(key)?.faces ?? []), name] })
    })
  const joints = [
    ...[...corners].flatMap(([v, faces]): CageJoint[] => {
      const own = [...new Set(faces)].slice(0, 3)
      const at = points[v] as Vec3
      return own.length === 3 && !isImage(v) ? [{ kind: 'corner', at, ends: [at], faces: own }] : []
    }),
    ...[...edges.values()].flatMap(({ a, b, faces }): CageJoint[] => {
      const ends = [points[a], points[b]] as [Vec3, Vec3]
      const middle = [0, 1, 2].map((k) => ((ends[0][k] as number) + (ends[1][k] as number)) / 2) as Vec3
      return new Set(faces).size === 2 && !(isImage(a) && isImage(b)) ? [{ kind: 'edge', at: middle, ends, faces }] : []
    }),
  ]
  const made = { points, joints }
  known.set(mass, made)
  return made
}
