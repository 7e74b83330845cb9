import Module from 'manifold-3d/manifold'
import { placePoint, placeSolid, type Solid, type Vec2 } from '@geotome/core/solid'
import type { Study } from '@geotome/core/study'

const kernel = await Module()
kernel.setup()

/** The calls to the kernel that the areas need: bodies of the given masses, their slices, one union for each given level. */
export function bareKernel(of: Study, levels: number[], masses: number[]): void {
  const touched = new Set(masses)
  const bodies = of.forms.map((f, i) => {
    if (!touched.has(i)) return null
    const mesh = placeSolid(f.body.solid, f.at)
    const body = kernel.Manifold.ofMesh(meshOf(mesh))
    return body
  })
  for (const level of levels) {
    const floor = of.floors[level]
    if (!floor) continue
    const sections = floor.plates.flatMap((plate) => {
      const i = of.forms.findIndex((f) => f.id === plate.mass)
      const body = bodies[i]
      return body
        ? [body.slice(floor.level.height + 1e-5)]
        : [
            new kernel.CrossSection(
              plate.region.map((l) => l.map((p): Vec2 => placePoint(p, { x: 0, y: 0, z: 0, turn: 0 }))),
              'Positive',
            ),
          ]
    })
    if (sections.length === 0) continue
    const union = kernel.CrossSection.union(sections)
    union.area()
    union.delete()
    for (const section of sections) section.delete()
  }
  for (const body of bodies) body?.delete()
}

function meshOf(solid: Solid): InstanceType<typeof kernel.Mesh> {
  return new kernel.Mesh({
    numProp: 3,
    vertProperties: Float32Array.from(solid.positions),
    triVerts: solid.triangles.slice(),
  })
}

/** The calls that the other figures of a whole study need: the volume of all bodies as one, and the union of their plans from above. */
export function bareFigures(of: Study): void {
  const bodies = of.forms.map((f) => kernel.Manifold.ofMesh(meshOf(placeSolid(f.body.solid, f.at))))
  const all = kernel.Manifold.union(bodies)
  all.volume()
  const plans = bodies.map((b) => b.project())
  const plan = kernel.CrossSection.union(plans)
  plan.area()
  for (const made of [...bodies, all, ...plans, plan]) made.delete()
}
