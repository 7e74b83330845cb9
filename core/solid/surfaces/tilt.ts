/**
 * How far a whole surface looks up, before anything is cut out of it: the mean of its normals' upward part by area, -1 to 1. It tells
 * wall-like from roof-like, and must not change where a cut or a groove takes a part of the surface away.
 */
const tilts = new WeakMap<object, number>()

/** The mean tilt of the whole surface; null where none was noted. */
export const wholeTilt = (surface: object): number | null => tilts.get(surface) ?? null

/** Notes the tilt of a whole surface. */
export const noteTilt = (surface: object, tilt: number): void => void tilts.set(surface, tilt)

/** Gives a surface that stands for another one, or for a part of it, the tilt of that. */
export function keepTilt<S extends object>(from: object, to: S): S {
  const tilt = tilts.get(from)
  if (tilt !== undefined) tilts.set(to, tilt)
  return to
}
