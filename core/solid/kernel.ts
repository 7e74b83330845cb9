import Module, { type CrossSection, type Manifold, type ManifoldToplevel } from 'manifold-3d/manifold'

let ready: ManifoldToplevel | null = null
let opening: Promise<void> | null = null

/** Starts the geometry kernel once. `wasmUrl` says where its binary is where the package cannot find it itself (a browser). */
export function openKernel(wasmUrl?: string): Promise<void> {
  opening ??= Module(wasmUrl ? { locateFile: () => wasmUrl } : undefined as never).then((kernel) => { kernel.setup(); ready = kernel })
  return opening
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
    return work(ready, (object) => { owned.push(object); return object })
  } finally {
    for (const object of owned) object.delete()
  }
}
