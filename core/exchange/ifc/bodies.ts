import { bodyMesh, type PartBody } from '../../fabric'
import { loopArea, piecesOf, type Mesh, type Vec2 } from '../../solid'
import { enumeration, int, StepWriter, type Reference } from './step'

/** Writes bodies: prisms as extruded profiles, everything else as closed triangle sets; m, heights from `below`. */
export class BodyWriter {
  private readonly up: Reference
  private readonly east: Reference
  constructor(private readonly step: StepWriter, private readonly context: Reference) {
    this.up = step.add('IFCDIRECTION', [0, 0, 1])
    this.east = step.add('IFCDIRECTION', [1, 0, 0])
  }

  /** A local placement at a height over another one. */
  placement(over: Reference | null, x: number, y: number, z: number): Reference {
    return this.step.add('IFCLOCALPLACEMENT', over, this.axes(x, y, z))
  }

  axes(x: number, y: number, z: number): Reference {
    return this.step.add('IFCAXIS2PLACEMENT3D', this.step.add('IFCCARTESIANPOINT', [x, y, z]), this.up, this.east)
  }

  /** The product's shape, in coordinates relative to (ox, oy, below). */
  shape(body: PartBody, ox: number, oy: number, below: number): Reference {
    const items = body.kind === 'prism' ? this.prism(body, ox, oy, below) : [this.mesh(body.mesh, ox, oy, below)]
    const type = body.kind === 'prism' ? 'SweptSolid' : 'Tessellation'
    return this.step.add('IFCPRODUCTDEFINITIONSHAPE', null, null, [this.step.add('IFCSHAPEREPRESENTATION', this.context, 'Body', type, items)])
  }

  meshShape(mesh: Mesh, ox: number, oy: number, below: number): Reference {
    return this.shape({ kind: 'mesh', mesh }, ox, oy, below)
  }

  private prism(body: Extract<PartBody, { kind: 'prism' }>, ox: number, oy: number, below: number): Reference[] {
    return piecesOf(body.region).map((piece) => {
      const outer = piece.find((l) => loopArea(l) > 0)
      const holes = piece.filter((l) => l !== outer)
      const curve = (loop: Vec2[]) => {
        const points = loop.map(([x, y]) => this.step.add('IFCCARTESIANPOINT', [x - ox, y - oy]))
        return this.step.add('IFCPOLYLINE', [...points, points[0] as Reference])
      }
      if (!outer) return this.mesh(bodyMesh(body), ox, oy, below)
      const profile = holes.length
        ? this.step.add('IFCARBITRARYPROFILEDEFWITHVOIDS', enumeration('AREA'), null, curve(outer), holes.map(curve))
        : this.step.add('IFCARBITRARYCLOSEDPROFILEDEF', enumeration('AREA'), null, curve(outer))
      return this.step.add('IFCEXTRUDEDAREASOLID', profile, this.axes(0, 0, body.z0 - below), this.up, body.z1 - body.z0)
    })
  }

  private mesh(mesh: Mesh, ox: number, oy: number, below: number): Reference {
    const points: number[][] = []
    for (let i = 0; i < mesh.positions.length; i += 3) points.push([(mesh.positions[i] ?? 0) - ox, (mesh.positions[i + 1] ?? 0) - oy, (mesh.positions[i + 2] ?? 0) - below])
    const faces: ReturnType<typeof int>[][] = []
    for (let t = 0; t < mesh.triangles.length; t += 3) faces.push([0, 1, 2].map((k) => int((mesh.triangles[t + k] ?? 0) + 1)))
    return this.step.add('IFCTRIANGULATEDFACESET', this.step.add('IFCCARTESIANPOINTLIST3D', points), null, enumeration('T'), faces, null)
  }
}
