import { bodyMesh, type PartBody } from '../../fabric'
import { liesOn, loopArea, piecesOf, type Arc, type Mesh, type Region, type Vec2 } from '../../solid'
import { enumeration, int, StepWriter, type Argument, type Reference } from './step'

/** Where a product's own coordinates lie: their origin (m) and the direction of their x axis in plan. */
export interface Frame {
  x: number
  y: number
  z: number
  along: Vec2
}
/** A frame at a place (m), its x axis along a direction in plan of length 1. */
export const frameAt = (x: number, y: number, z: number, along: Vec2 = [1, 0]): Frame => ({ x, y, z, along })

/**
 * Writes bodies and lines in a frame: prisms as extruded profiles, with arcs where they are arcs; everything else as closed triangle
 * sets.
 */
export class BodyWriter {
  private readonly up: Reference
  /** `unit`: m to the file's unit of length */
  constructor(
    private readonly step: StepWriter,
    private readonly body: Reference,
    private readonly axis: Reference,
    private readonly foot: Reference,
    readonly unit: number,
  ) {
    this.up = step.add('IFCDIRECTION', [0, 0, 1])
  }

  /** A placement within another frame (null: the world). */
  placement(over: Reference | null, within: Frame | null, frame: Frame): Reference {
    const [x, y, along] = within
      ? [...inFrame(within, [frame.x, frame.y]), turnedInto(within, frame.along)]
      : [frame.x, frame.y, frame.along]
    return this.step.add('IFCLOCALPLACEMENT', over, this.axes(x, y, frame.z - (within?.z ?? 0), along))
  }

  axes(x: number, y: number, z: number, along: Vec2 = [1, 0]): Reference {
    return this.step.add(
      'IFCAXIS2PLACEMENT3D',
      this.point([x, y, z]),
      this.up,
      this.step.add('IFCDIRECTION', [along[0], along[1], 0]),
    )
  }

  /**
   * A product's shape: its body, and its axis in plan where it has one. Gives the shape and its items, which colours and layers hang on.
   */
  shape(
    body: PartBody,
    frame: Frame,
    arcs: Arc[] = [],
    axis: Vec2[] | null = null,
  ): { shape: Reference; items: Reference[]; representation: Reference } {
    const items = body.kind === 'prism' ? this.prism(body, frame, arcs) : [this.mesh(body.mesh, frame)]
    const representation = this.step.add(
      'IFCSHAPEREPRESENTATION',
      this.body,
      'Body',
      body.kind === 'prism' ? 'SweptSolid' : 'Tessellation',
      items,
    )
    const lines = axis
      ? [
          this.step.add('IFCSHAPEREPRESENTATION', this.axis, 'Axis', 'Curve2D', [
            this.curve(
              axis.map((p) => inFrame(frame, p)),
              arcs.map((a) => arcIn(frame, a)),
              false,
            ),
          ]),
        ]
      : []
    return {
      items,
      representation,
      shape: this.step.add('IFCPRODUCTDEFINITIONSHAPE', null, null, [...lines, representation]),
    }
  }

  meshShape(mesh: Mesh, frame: Frame): ReturnType<BodyWriter['shape']> {
    return this.shape({ kind: 'mesh', mesh }, frame)
  }

  /** A closed line in plan, such as a boundary. */
  footprint(loop: Vec2[], frame: Frame): Reference {
    const curve = this.curve(
      loop.map((p) => inFrame(frame, p)),
      [],
      true,
    )
    return this.step.add('IFCPRODUCTDEFINITIONSHAPE', null, null, [
      this.step.add('IFCSHAPEREPRESENTATION', this.foot, 'FootPrint', 'GeometricCurveSet', [
        this.step.add('IFCGEOMETRICCURVESET', [curve]),
      ]),
    ])
  }

  private prism(body: Extract<PartBody, { kind: 'prism' }>, frame: Frame, arcs: Arc[]): Reference[] {
    const own = arcs.map((a) => arcIn(frame, a))
    const region: Region = body.region.map((l) => l.map((p) => inFrame(frame, p)))
    return piecesOf(region).map((piece) => {
      const outer = piece.find((l) => loopArea(l) > 0)
      const holes = piece.filter((l) => l !== outer)
      if (!outer) return this.mesh(bodyMesh(body), frame)
      const curve = (loop: Vec2[]) => this.curve(loop, own, true)
      const profile = holes.length
        ? this.step.add('IFCARBITRARYPROFILEDEFWITHVOIDS', enumeration('AREA'), null, curve(outer), holes.map(curve))
        : this.step.add('IFCARBITRARYCLOSEDPROFILEDEF', enumeration('AREA'), null, curve(outer))
      return this.step.add(
        'IFCEXTRUDEDAREASOLID',
        profile,
        this.axes(0, 0, body.z0 - frame.z),
        this.up,
        (body.z1 - body.z0) * this.unit,
      )
    })
  }

  /** A line through points: straight, or with arcs where its pieces are facets of arcs. */
  private curve(points: Vec2[], arcs: Arc[], closed: boolean): Reference {
    const runs = arcs.length ? runsOf(points, arcs, closed) : null
    if (!runs) {
      const refs = points.map((p) => this.point(p))
      return this.step.add('IFCPOLYLINE', closed ? [...refs, refs[0] as Reference] : refs)
    }
    const list: number[][] = []
    const at = (p: Vec2) => {
      list.push([p[0] * this.unit, p[1] * this.unit])
      return list.length
    }
    const segments: Argument[] = []
    let from = at(points[runs[0]?.from ?? 0] as Vec2)
    const first = from
    runs.forEach((run, k) => {
      const last = closed && k === runs.length - 1
      const middle = run.arc ? at(midway(run.arc, points[run.from] as Vec2, points[run.to] as Vec2)) : 0
      const to = last ? first : at(points[run.to] as Vec2)
      segments.push(
        this.step.typed(run.arc ? 'IFCARCINDEX' : 'IFCLINEINDEX', (run.arc ? [from, middle, to] : [from, to]).map(int)),
      )
      from = to
    })
    return this.step.add(
      'IFCINDEXEDPOLYCURVE',
      this.step.add('IFCCARTESIANPOINTLIST2D', list),
      segments,
      enumeration('F'),
    )
  }

  private mesh(mesh: Mesh, frame: Frame): Reference {
    const points: number[][] = []
    for (let i = 0; i < mesh.positions.length; i += 3) {
      const [x, y] = inFrame(frame, [mesh.positions[i] ?? 0, mesh.positions[i + 1] ?? 0])
      points.push([x * this.unit, y * this.unit, ((mesh.positions[i + 2] ?? 0) - frame.z) * this.unit])
    }
    const faces: ReturnType<typeof int>[][] = []
    for (let t = 0; t < mesh.triangles.length; t += 3)
      faces.push([0, 1, 2].map((k) => int((mesh.triangles[t + k] ?? 0) + 1)))
    return this.step.add(
      'IFCTRIANGULATEDFACESET',
      this.step.add('IFCCARTESIANPOINTLIST3D', points),
      null,
      enumeration('T'),
      faces,
      null,
    )
  }

  private point(p: readonly number[]): Reference {
    return this.step.add(
      'IFCCARTESIANPOINT',
      p.map((c) => c * this.unit),
    )
  }
}

/** A point in plan in a frame's own coordinates. */
export function inFrame({ x, y, along: [c, s] }: Frame, p: Vec2): Vec2 {
  const [dx, dy] = [p[0] - x, p[1] - y]
  return [c * dx + s * dy, c * dy - s * dx]
}
const turnedInto = ({ along: [c, s] }: Frame, [x, y]: Vec2): Vec2 => [c * x + s * y, c * y - s * x]

function arcIn(frame: Frame, arc: Arc): Arc {
  const [x, y] = inFrame(frame, [arc.x, arc.y])
  return { ...arc, x, y, from: arc.from - Math.atan2(frame.along[1], frame.along[0]) }
}

interface Run {
  from: number
  to: number
  arc: Arc | null
}

/**
 * A line as straight pieces and arcs, from point to point; null where it has none of the arcs. An arc is half a turn at most, so that the
 * point between tells its way.
 */
function runsOf(points: Vec2[], arcs: Arc[], closed: boolean): Run[] | null {
  const n = points.length
  const count = closed ? n : n - 1
  const on = Array.from(
    { length: count },
    (_, i) => arcs.find((a) => liesOn(a, points[i] as Vec2, points[(i + 1) % n] as Vec2)) ?? null,
  )
  if (on.every((a) => a === null)) return null
  // Begin where one piece ends and the next begins, so that none goes over the end of the list.
  const start = closed
    ? Math.max(
        0,
        on.findIndex((a, i) => a !== on[(i + count - 1) % count]),
      )
    : 0
  const runs: { first: number; edges: number; arc: Arc | null }[] = []
  for (let k = 0; k < count; k++) {
    const arc = on[(start + k) % count] ?? null
    const last = runs.at(-1)
    if (last?.arc && last.arc === arc && (last.edges + 1) * (Math.abs(arc.sweep) / arc.n) < Math.PI * 0.99) last.edges++
    else runs.push({ first: k, edges: 1, arc })
  }
  return runs.map(({ first, edges, arc }) => ({
    from: (start + first) % n,
    to: (start + first + edges) % n,
    arc: edges > 1 ? arc : null,
  }))
}

/** The point of an arc half-way between two points of its. */
function midway(arc: Arc, a: Vec2, b: Vec2): Vec2 {
  const [u, w] = [Math.atan2(a[1] - arc.y, a[0] - arc.x), Math.atan2(b[1] - arc.y, b[0] - arc.x)]
  let sweep = w - u
  while (sweep > Math.PI) sweep -= 2 * Math.PI
  while (sweep < -Math.PI) sweep += 2 * Math.PI
  const r = (Math.hypot(a[0] - arc.x, a[1] - arc.y) + Math.hypot(b[0] - arc.x, b[1] - arc.y)) / 2
  return [arc.x + r * Math.cos(u + sweep / 2), arc.y + r * Math.sin(u + sweep / 2)]
}
