import { refuse, TOLERANCE } from '../values'
import Module, { type CrossSection, type Manifold, type ManifoldToplevel } from 'manifold-3d/manifold'
import type { Vec2 } from './place'
import { gapOf, minus, spanned } from './vec2'

let ready: ManifoldToplevel | null = null
let opening: Promise<void> | null = null

/** Starts the geometry kernel once. `wasmUrl` says where its binary is where the package cannot find it itself (a browser). */
export function openKernel(wasmUrl?: string): Promise<void> {
  opening ??= Module(wasmUrl ? { locateFile: () => wasmUrl } : (undefined as never)).then((kernel) => {
    kernel.setup()
    ready = kernel
  })
  return opening
}

const raise = (e: unknown): never => {
  throw e
}

type Owned = CrossSection | Manifold

/**
 * Lends the kernel for one piece of work and frees everything it handed out: `own` registers an object.
 * The only way to the kernel, so that no object of its memory outlives its work.
 */
export function withKernel<T>(work: (kernel: ManifoldToplevel, own: <O extends Owned>(object: O) => O) => T): T {
  if (!ready) throw new Error('The geometry kernel is not open; await openKernel() first.')
  const owned: Owned[] = []
  try {
    return work(ready, (object) => {
      owned.push(object)
      return object
    })
  } catch (e) {
    // What goes wrong within the kernel comes out as a bare number.
    return typeof e === 'number'
      ? refuse('geometry', 'The form cannot be computed.', "Make it simpler, or move it nearer to the project's zero.")
      : raise(e)
  } finally {
    for (const object of owned) object.delete()
  }
}

/**
 * Triangles over closed loops in plan (m; outer ones counter-clockwise, holes clockwise), looking up; corners are numbered through all
 * loops. They use every corner and cover exactly what the loops enclose, however thin it is there, so that a body with such a cap is
 * closed.
 */
export function capOf(loops: [number, number][][]): readonly number[] {
  // The kernel throws on an empty list.
  if (loops.length === 0) return []
  const four = capOfFour(loops)
  if (four) return four
  const key = loops.map((l) => l.join()).join(';')
  let cap = caps.get(key)
  if (cap === undefined) {
    if (caps.size >= 500) caps.clear()
    caps.set(key, (cap = withKernel((kernel) => kernel.triangulate(loops)).flat()))
  }
  return cap
}
/** What only grows taller keeps its cap; by its loops. */
const caps = new Map<string, readonly number[]>()

/** Of one loop of four corners that all turn left clearly: by its shorter diagonal. Most parts of a building are such. */
function capOfFour([ring, more]: [number, number][][]): number[] | null {
  if (more || ring?.length !== 4) return null
  const [a, b, c, d] = ring as [Vec2, Vec2, Vec2, Vec2]
  const turns = (p: Vec2, q: Vec2, r: Vec2) =>
    spanned(minus(q, p), minus(r, q)) > TOLERANCE.slope * gapOf(p, q) * gapOf(q, r)
  if (!turns(a, b, c) || !turns(b, c, d) || !turns(c, d, a) || !turns(d, a, b)) return null
  return gapOf(a, c) <= gapOf(b, d) ? [0, 1, 2, 0, 2, 3] : [0, 1, 3, 1, 2, 3]
}
