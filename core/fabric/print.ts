import type { MassForm } from '../form'
import type { Print } from '../project'
import { placePlane, placePoint, TOLERANCE, type Face, type Plane, type Region, type Vec3 } from '../solid'

/** A face in the world: its plane, its edge loops (m, absolute heights) and the names of the faces across each edge. */
export interface WorldFace { name: string; plane: Plane; loops: Vec3[][]; beyond: string[][] }
export type FacePrint = Extract<Print, { kind: 'face' }>
export type PlatePrint = Extract<Print, { kind: 'plate' }>

export function worldFace(form: MassForm, face: Face): WorldFace {
  return {
    name: face.name, plane: placePlane(face.plane, form.at),
    loops: face.loops.map((l) => l.points.map((p): Vec3 => [...placePoint([p[0], p[1]], form.at), p[2] + form.at.z])),
    beyond: face.loops.map((l) => l.beyond),
  }
}

export const worldFaces = (form: MassForm): WorldFace[] => form.body.faces().map((f) => worldFace(form, f))

/** What a part remembers of its face: surface and boundary in doubles, heights measured from a level so that moving the level drifts nothing. */
export function facePrint(face: WorldFace, zFrom: string, levelHeight: number): FacePrint {
  return {
    kind: 'face', zFrom, normal: face.plane.n, distance: exact(face.plane.d - face.plane.n[2] * levelHeight),
    loops: face.loops.map((l) => l.map(([x, y, z]) => [exact(x), exact(y), exact(z - levelHeight)])), edges: face.beyond,
  }
}

/** The face as the part saw it, standing on its level's height now. */
export function printedFace(print: FacePrint, levelHeight: number, name: string): WorldFace {
  return {
    name, plane: { n: print.normal, d: print.distance + print.normal[2] * levelHeight },
    loops: print.loops.map((l) => l.map(([x = 0, y = 0, z = 0]): Vec3 => [x, y, z + levelHeight])), beyond: print.edges,
  }
}

/** What a slab remembers: the form that it was cut from (its content, not its height), and the outline then. */
export function platePrint(form: MassForm, baseLevelHeight: number, region: Region): PlatePrint {
  return { kind: 'plate', form: formPrint(form, baseLevelHeight), loops: region.map((l) => l.map(([x, y]) => [exact(x), exact(y)])) }
}

export const formPrint = (form: MassForm, baseLevelHeight: number): string =>
  fingerprint(`${form.body.key}@${form.at.x},${form.at.y},${form.at.turn},${exact(form.at.z - baseLevelHeight)}`)

/** Whether two planes are one, over the extent of the given points. */
export function samePlane(a: Plane, b: Plane, points: Vec3[]): boolean {
  const dot = a.n[0] * b.n[0] + a.n[1] * b.n[1] + a.n[2] * b.n[2]
  return dot > 0 && points.every((p) => Math.abs(b.n[0] * p[0] + b.n[1] * p[1] + b.n[2] * p[2] - b.d) < TOLERANCE.bond)
}

/** Whether two boundaries have the same corners, within the bond's tolerance. */
export function sameCorners(a: readonly (readonly number[])[], b: readonly (readonly number[])[]): boolean {
  const meets = (p: readonly number[], all: readonly (readonly number[])[]) => all.some((q) => p.every((c, i) => Math.abs(c - (q[i] ?? 0)) < TOLERANCE.bond))
  return a.length === b.length && a.every((p) => meets(p, b)) && b.every((p) => meets(p, a))
}

const exact = (value: number) => Math.round(value * 1e9) / 1e9 + 0

/** A short stand-in for a long text (53 bits; the mixing of "cyrb53", public domain). */
function fingerprint(text: string): string {
  let [h, k] = [0xdeadbeef, 0x41c6ce57]
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    h = Math.imul(h ^ code, 2654435761)
    k = Math.imul(k ^ code, 1597334677)
  }
  h = Math.imul(h ^ (h >>> 16), 2246822507) ^ Math.imul(k ^ (k >>> 13), 3266489909)
  k = Math.imul(k ^ (k >>> 16), 2246822507) ^ Math.imul(h ^ (h >>> 13), 3266489909)
  return (4294967296 * (2097151 & k) + (h >>> 0)).toString(36)
}
