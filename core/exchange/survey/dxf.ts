import { refuse } from '../../project'
import { arcBetween, arcPoints, type Vec2, type Vec3, TOLERANCE, gapOf } from '../../solid'
import { READ_LIMITS, tooMany } from '../limits'
import { numberOf, readDrawing, valueOf, type Drawing, type Entity } from './dxf-entities'
import { nothing, unitAsked, type SurveyReader } from './kind'

/** Metres to a drawing unit, by DXF's numbers for units ($INSUNITS). */
const UNITS: Record<number, number> = {
  1: 0.0254,
  2: 0.3048,
  3: 1609.344,
  4: 0.001,
  5: 0.01,
  6: 1,
  7: 1000,
  8: 0.0254 / 1000000,
  9: 0.0254 / 1000,
  10: 0.9144,
  13: TOLERANCE.point,
  14: 0.1,
  15: 10,
  16: 100,
  21: 1200 / 3937,
  22: 100 / 3937,
  23: 3600 / 3937,
  24: (5280 * 1200) / 3937,
}

/** DXF: points, lines, polylines, arcs and circles; closed polylines are outlines, whose thickness is a height. Blocks are placed; paper space and layers that are off are left out. */
export const dxf: SurveyReader = {
  extensions: ['dxf'],
  read(bytes, name, { answers }) {
    const head = new TextDecoder('latin1').decode(bytes.slice(0, 64))
    if (!/^\s*(0|999)\s/.test(head))
      refuse('file', `"${name}" is no DXF text.`, 'Export it as DXF in text form (ASCII), not binary.')
    const drawing = readDrawing(decoded(bytes), name)
    const read = nothing()
    const said = UNITS[Number(drawing.header.get('$INSUNITS') ?? 0)]
    const factor = said ?? unitAsked(read, answers)
    const things = placed(drawing, name)
    const { others, paper, off } = things
    const closedWithHeight: { at: number; line: Vec3[] }[] = []
    const scaled = (p: Vec3): Vec3 => [p[0] * factor, p[1] * factor, p[2] * factor]
    for (const { entity: e, place } of things.entities) {
      const to = (p: Vec3): Vec3 => scaled(place(p))
      const point = (x: number, y: number, z: number): Vec3 => [numberOf(e, x), numberOf(e, y), numberOf(e, z)]
      if (e.type === 'POINT') read.points.push(to(point(10, 20, 30)))
      else if (e.type === 'LINE') read.lines.push([to(point(10, 20, 30)), to(point(11, 21, 31))])
      else if (e.type === '3DFACE') read.points.push(...[0, 1, 2, 3].map((k) => to(point(10 + k, 20 + k, 30 + k))))
      else if (e.type === 'LWPOLYLINE' || e.type === 'POLYLINE' || e.type === 'CIRCLE' || e.type === 'ARC') {
        const line = lineOf(e)
        if (!line) {
          others.set(e.type, (others.get(e.type) ?? 0) + 1)
          continue
        }
        const own = inOwnPlane(e)
        const points = line.points.map((p) => to(own(p)))
        const [a, b] = [points[0], points.at(-1)]
        const back = a && b && points.length > 3 && gapOf(a, b) < TOLERANCE.point
        if (!line.closed && !back) {
          if (points.length > 1) read.lines.push(points)
          continue
        }
        const ring = back ? points.slice(0, -1) : points
        const heights = ring.map((p) => p[2])
        const level = Math.max(...heights) - Math.min(...heights) < TOLERANCE.point
        const thickness = numberOf(e, 39)
        const [base = 0] = heights
        if (thickness === 0 && (!level || Math.abs(base) > TOLERANCE.point))
          closedWithHeight.push({ at: read.outlines.length, line: [...ring, ring[0] as Vec3] })
        read.outlines.push({
          name: valueOf(e, 8) ?? null,
          points: ring.map(([x, y]): Vec2 => [x, y]),
          height: thickness ? Math.abs(thickness) * factor : null,
          base: base || null,
        })
      } else others.set(e.type, (others.get(e.type) ?? 0) + 1)
      if (read.points.length + read.lines.length + read.outlines.length > READ_LIMITS.placed) tooMany('things', name)
    }
    if (closedWithHeight.length) {
      const taken = answers.contours ?? 'contours'
      read.asks.push({
        what: 'contours',
        say: `${closedWithHeight.length === 1 ? 'One closed line has' : `${closedWithHeight.length} closed lines have`} a height of ${closedWithHeight.length === 1 ? 'its' : 'their'} own, and no thickness`,
        options: [
          { value: 'contours', label: 'contours of the ground' },
          { value: 'outlines', label: 'outlines of buildings' },
        ],
        taken,
      })
      if (taken === 'contours') {
        const gone = new Set(closedWithHeight.map((c) => c.at))
        read.outlines = read.outlines.filter((_, i) => !gone.has(i))
        read.lines.push(...closedWithHeight.map((c) => c.line))
      }
    }
    if (others.size) read.remarks.push(`Left out: ${[...others].map(([type, n]) => `${n} ${type}`).join(', ')}.`)
    if (paper) read.remarks.push(`${paper} things on paper (title blocks, frames) were left out.`)
    if (off) read.remarks.push(`${off} things on layers that are off were left out.`)
    if (read.points.length + read.lines.length + read.outlines.length === 0)
      refuse(
        'file',
        `There is no point, line or closed polyline in "${name}".`,
        'Export the boundary as a closed polyline, and the ground as points or lines.',
      )
    return read
  },
}

/** UTF-8, or the code page that an older drawing names. */
function decoded(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes).replace(/^\uFEFF/, '')
  } catch {
    /* an older one */
  }
  const page =
    /\$DWGCODEPAGE\s+3\s+(?:ANSI_|DOS)?(\d+)/i.exec(new TextDecoder('latin1').decode(bytes.slice(0, 20000)))?.[1] ??
    '1252'
  try {
    return new TextDecoder(
      page === '932' ? 'shift_jis' : page === '936' ? 'gbk' : page === '866' ? 'ibm866' : `windows-${page}`,
    ).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

type Place = (p: Vec3) => Vec3
interface Things {
  entities: { entity: Entity; place: Place }[]
  others: Map<string, number>
  paper: number
  off: number
}

/** In how many columns and rows a block is placed at once. */
const timesOf = (e: Entity): [number, number] => [Math.max(1, numberOf(e, 70, 1)), Math.max(1, numberOf(e, 71, 1))]

/** How many things there will be once all blocks are placed; each block is counted once. */
function countOf(
  drawing: Drawing,
  entities: Entity[],
  name: string,
  known: Map<string, number>,
  depth: number,
): number {
  if (depth > READ_LIMITS.depth) tooMany('blocks within blocks', name)
  let count = entities.length
  for (const e of entities) {
    const id = e.type === 'INSERT' ? (valueOf(e, 2) ?? '') : ''
    const block = e.type === 'INSERT' ? drawing.blocks.get(id) : undefined
    if (!block) continue
    const inside = known.get(id) ?? countOf(drawing, block.entities, name, known, depth + 1)
    known.set(id, inside)
    const [columns, rows] = timesOf(e)
    if (columns * rows * Math.max(1, inside) > READ_LIMITS.placed)
      tooMany(columns * rows > 1 ? 'things in its block arrays' : 'things', name)
    count += columns * rows * inside
  }
  return count
}

/** All things where they lie once the blocks are placed, those within blocks too. */
function placed(drawing: Drawing, name: string): Things {
  const out: Things = { entities: [], others: new Map(), paper: 0, off: 0 }
  if (countOf(drawing, drawing.entities, name, new Map(), 0) > READ_LIMITS.placed) tooMany('things', name)
  const walk = (entities: Entity[], place: Place) => {
    for (const entity of entities) {
      if (valueOf(entity, 67) === '1') {
        out.paper++
        continue
      }
      if (drawing.hidden.has(valueOf(entity, 8) ?? '')) {
        out.off++
        continue
      }
      if (entity.type !== 'INSERT') {
        out.entities.push({ entity, place })
        continue
      }
      const block = drawing.blocks.get(valueOf(entity, 2) ?? '')
      if (!block) {
        out.others.set('INSERT of nothing', (out.others.get('INSERT of nothing') ?? 0) + 1)
        continue
      }
      const [columns, rows] = timesOf(entity)
      const own = inOwnPlane(entity)
      const [sx, sy, sz, turn] = [
        numberOf(entity, 41, 1),
        numberOf(entity, 42, 1),
        numberOf(entity, 43, 1),
        (numberOf(entity, 50) * Math.PI) / 180,
      ]
      const [c, s] = [Math.cos(turn), Math.sin(turn)]
      for (let j = 0; j < rows; j++)
        for (let i = 0; i < columns; i++) {
          const at = ([x, y, z]: Vec3): Vec3 => {
            const [lx, ly, lz] = [
              (x - block.base[0]) * sx + i * numberOf(entity, 44),
              (y - block.base[1]) * sy + j * numberOf(entity, 45),
              (z - block.base[2]) * sz,
            ]
            return place(
              own([
                numberOf(entity, 10) + c * lx - s * ly,
                numberOf(entity, 20) + s * lx + c * ly,
                numberOf(entity, 30) + lz,
              ]),
            )
          }
          walk(block.entities, at)
        }
    }
  }
  walk(drawing.entities, (p) => p)
  return out
}

/** From the plane that a thing is drawn in to the world: by its extrusion direction, with the format's rule for the axes across it. */
function inOwnPlane(e: Entity): Place {
  const n: Vec3 = [numberOf(e, 210), numberOf(e, 220), numberOf(e, 230, 1)]
  const is3d = e.type === 'POLYLINE' && (numberOf(e, 70) & 8) === 8
  const length = Math.hypot(...n)
  if (is3d || length < TOLERANCE.rounding || (n[0] === 0 && n[1] === 0 && n[2] > 0)) return (p) => p
  const z: Vec3 = [n[0] / length, n[1] / length, n[2] / length]
  const cross = (a: Vec3, b: Vec3): Vec3 => [
    a[1] * b[2] - a[2] * b[1],
    a[2] * b[0] - a[0] * b[2],
    a[0] * b[1] - a[1] * b[0],
  ]
  const across = cross(Math.abs(z[0]) < 1 / 64 && Math.abs(z[1]) < 1 / 64 ? [0, 1, 0] : [0, 0, 1], z)
  const l = Math.hypot(...across)
  const x: Vec3 = [across[0] / l, across[1] / l, across[2] / l]
  const y = cross(z, x)
  return ([px, py, pz]) => [0, 1, 2].map((k) => (x[k] ?? 0) * px + (y[k] ?? 0) * py + (z[k] ?? 0) * pz) as Vec3
}

/** The line of a polyline, circle or arc in its own plane, with its arcs as facets; null for a mesh, or for an arc that no ground has. */
function lineOf(e: Entity): { points: Vec3[]; closed: boolean } | null {
  if (e.type === 'CIRCLE' || e.type === 'ARC') {
    const [x, y, z, r] = [numberOf(e, 10), numberOf(e, 20), numberOf(e, 30), numberOf(e, 40)]
    if (!(r > 0 && r < READ_LIMITS.far)) return null
    const [from, to] = e.type === 'CIRCLE' ? [0, 360] : [numberOf(e, 50), numberOf(e, 51)]
    const sweep = e.type === 'CIRCLE' ? 360 : (((to - from) % 360) + 360) % 360 || 360
    const n = 4 * Math.max(2, Math.min(64, Math.ceil(sweep / 15)))
    return {
      closed: e.type === 'CIRCLE',
      points: Array.from({ length: e.type === 'CIRCLE' ? n : n + 1 }, (_, k): Vec3 => {
        const a = ((from + (sweep * k) / n) * Math.PI) / 180
        return [x + r * Math.cos(a), y + r * Math.sin(a), z]
      }),
    }
  }
  const flags = numberOf(e, 70)
  if (e.type === 'POLYLINE' && (flags & 80) !== 0) return null
  const corners: { p: Vec3; bulge: number }[] = []
  if (e.type === 'POLYLINE')
    for (const v of e.vertices)
      corners.push({
        p: [numberOf(v, 10), numberOf(v, 20), numberOf(v, 30) || numberOf(e, 30)],
        bulge: numberOf(v, 42),
      })
  else {
    const z = numberOf(e, 38)
    for (const [code, value] of e.groups) {
      const n = Number(value)
      const last = corners.at(-1)
      if (code === 10) corners.push({ p: [n, 0, z], bulge: 0 })
      else if (code === 20 && last) last.p[1] = n
      else if (code === 42 && last) last.bulge = n
    }
  }
  const closed = (flags & 1) === 1
  if (corners.some((c) => c.p.some((x) => !Number.isFinite(x) || Math.abs(x) > 1e12) || Math.abs(c.bulge) > 1e3))
    return null
  const points = corners.flatMap(({ p, bulge }, i): Vec3[] => {
    const next = corners[(i + 1) % corners.length]
    const arc =
      next && bulge && (closed || i + 1 < corners.length)
        ? arcBetween([p[0], p[1]], [next.p[0], next.p[1]], bulge)
        : null
    return arc
      ? arcPoints({ ...arc, n: Math.min(arc.n, 256) })
          .slice(0, -1)
          .map(([x, y]): Vec3 => [x, y, p[2]])
      : [p]
  })
  return { points, closed }
}
