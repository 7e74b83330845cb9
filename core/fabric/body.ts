import { areaOf, betweenSheets, volumeOf, type Mesh, type Region, type Solid } from '../solid'

/** The body of a part: an upright prism where it is one (exact, and so exported), a mesh otherwise. Heights in m above the datum. */
export type PartBody = { kind: 'prism'; region: Region; z0: number; z1: number } | { kind: 'mesh'; mesh: Mesh }

/** m3 */
export const bodyVolume = (body: PartBody): number =>
  body.kind === 'prism'
    ? areaOf(body.region) * (body.z1 - body.z0)
    : volumeOf({ ...body.mesh, facetOf: new Uint32Array(), facets: [] } satisfies Solid)

/** The body as a closed mesh, for drawing and for formats that know nothing else. */
export function bodyMesh(body: PartBody): Mesh {
  return body.kind === 'mesh'
    ? body.mesh
    : betweenSheets(
        body.region,
        () => body.z0,
        () => body.z1,
      )
}

/** Several meshes as one. */
export function mergedMeshes(meshes: Mesh[]): Mesh {
  const starts = meshes.map((_, i) => meshes.slice(0, i).reduce((n, m) => n + m.positions.length / 3, 0))
  return {
    positions: Float64Array.from(meshes.flatMap((m) => [...m.positions])),
    triangles: Uint32Array.from(meshes.flatMap((m, i) => [...m.triangles].map((t) => t + (starts[i] ?? 0)))),
  }
}

/** The lowest and highest point, m. */
export function bodyHeights(body: PartBody): { z0: number; z1: number } {
  if (body.kind === 'prism') return body
  let [z0, z1] = [Infinity, -Infinity]
  for (let i = 2; i < body.mesh.positions.length; i += 3) {
    const z = body.mesh.positions[i] as number
    if (z < z0) z0 = z
    if (z > z1) z1 = z
  }
  return { z0, z1 }
}
