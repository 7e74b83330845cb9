import { refuse } from '../../project'
import { gapOf, loopArea, TOLERANCE, type Vec2, type Vec3 } from '../../solid'
import { READ_LIMITS, tooMany } from '../limits'
import { curveOf, hatchOutlines } from './dxf-curves'
import { numberOf, readDrawing, valueOf, type Drawing, type Entity } from './dxf-entities'
import { lineOf, type DrawnLine } from './dxf-lines'
import { inOwnPlane, placed, type Place, type Things } from './dxf-place'
import { nothing, unitAsked, type Answers, type SiteRead, type SurveyReader } from './kind'

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

/**
 * DXF: points, lines, polylines, arcs, circles, ellipses, splines, corners of faces and meshes. Closed lines and hatches are outlines; their
 * thickness is a height. Blocks are placed; paper space, invisible things and layers that are off are left out. What is missing is said.
 */
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
    const reading: Reading = { read, factor, others: things.others, withHeight: [], hatches: [], edges: new Set() }
    for (const { entity, place } of things.entities) {
      add(reading, entity, place)
      if (read.points.length + read.lines.length + read.outlines.length > READ_LIMITS.placed) tooMany('things', name)
    }
    askContours(reading, answers)
    for (const hatch of reading.hatches)
      if (!read.outlines.some((o) => isAlike(o.points, hatch.points))) read.outlines.push(hatch)
    read.remarks.push(...leftOut(things, drawing))
    if (reading.edges.size >= MOST_FACE_EDGES)
      read.remarks.push(
        `The ground keeps ${MOST_FACE_EDGES.toLocaleString('en')} edges of faces; of the other faces only the corners are taken.`,
      )
    if (read.points.length + read.lines.length + read.outlines.length === 0)
      refuse(
        'file',
        drawing.endsIn
          ? `"${name}" ends early, before any point, line or closed polyline.`
          : `There is no point, line or closed polyline in "${name}".`,
        'Export the boundary as a closed polyline, and the ground as points or lines.',
      )
    return read
  },
}

/** What is read so far. `withHeight`: closed lines with a height of their own; `hatches`: their outlines. */
interface Reading {
  read: SiteRead
  factor: number
  others: Map<string, number>
  withHeight: { at: number; line: Vec3[] }[]
  hatches: SiteRead['outlines']
  /** edges of faces that are lines already */ edges: Set<string>
}

/** Takes a thing of the drawing where it lies. */
function add(reading: Reading, e: Entity, place: Place): void {
  const { read, factor, others } = reading
  const to = (p: Vec3): Vec3 => {
    const [x, y, z] = place(p)
    return [x * factor, y * factor, z * factor]
  }
  const point = (x: number, y: number, z: number): Vec3 => [numberOf(e, x), numberOf(e, y), numberOf(e, z)]
  const isMesh = e.type === 'POLYLINE' && (numberOf(e, 70) & 80) !== 0
  const within = TOLERANCE.curve / factor
  if (e.type === 'POINT') read.points.push(to(point(10, 20, 30)))
  else if (e.type === 'LINE') read.lines.push([to(point(10, 20, 30)), to(point(11, 21, 31))])
  else if (e.type === '3DFACE')
    addFace(
      reading,
      [0, 1, 2, 3].map((k) => to(point(10 + k, 20 + k, 30 + k))),
    )
  else if (isMesh) {
    for (const v of e.vertices)
      // Flag 128 alone: a face, which names corners and has no place.
      if ((numberOf(v, 70) & 192) !== 128) read.points.push(to([numberOf(v, 10), numberOf(v, 20), numberOf(v, 30)]))
  } else if (e.type === 'HATCH') {
    const own = inOwnPlane(e)
    for (const ring of hatchOutlines(e, within)) {
      const points = ring.map((p) => to(own(p)))
      reading.hatches.push({ name: valueOf(e, 8) ?? null, points: points.map(inPlan), height: null, base: null })
    }
  } else {
    const inSpace = e.type === 'SPLINE' || e.type === 'ELLIPSE'
    const line = inSpace ? curveOf(e, within) : LINES.has(e.type) ? lineOf(e) : null
    const own = inSpace ? (p: Vec3) => p : inOwnPlane(e)
    if (line) addLine(reading, e, { ...line, points: line.points.map((p) => to(own(p))) })
    else others.set(e.type, (others.get(e.type) ?? 0) + 1)
  }
}

const LINES = new Set(['LWPOLYLINE', 'POLYLINE', 'CIRCLE', 'ARC'])
const inPlan = ([x, y]: Vec3): Vec2 => [x, y]

/** so many edges of faces are held; of more the corners alone are read */
const MOST_FACE_EDGES = 40_000

/** A face of the ground: its corners, and its edges as lines that the ground keeps, each once. */
function addFace({ read, edges }: Reading, corners: Vec3[]): void {
  read.points.push(...corners)
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length] as Vec3
    const key = [a, b]
      .map((p) => p.map((c) => Math.round(c / TOLERANCE.touch)).join())
      .sort()
      .join(' ')
    if (gapOf(inPlan(a), inPlan(b)) < TOLERANCE.touch || edges.has(key) || edges.size >= MOST_FACE_EDGES) return
    edges.add(key)
    read.lines.push([a, b])
  })
}

/** A line on the ground, or a closed one as an outline. */
function addLine({ read, factor, withHeight }: Reading, e: Entity, { points, closed }: DrawnLine): void {
  const [a, b] = [points[0], points.at(-1)]
  const back = a && b && points.length > 3 && gapOf(inPlan(a), inPlan(b)) < TOLERANCE.point
  if (!closed && !back) {
    if (points.length > 1) read.lines.push(points)
    return
  }
  const ring = back ? points.slice(0, -1) : points
  const heights = ring.map((p) => p[2])
  const level = Math.max(...heights) - Math.min(...heights) < TOLERANCE.point
  const thickness = numberOf(e, 39)
  const [base = 0] = heights
  if (thickness === 0 && (!level || Math.abs(base) > TOLERANCE.point))
    withHeight.push({ at: read.outlines.length, line: [...ring, ring[0] as Vec3] })
  read.outlines.push({
    name: valueOf(e, 8) ?? null,
    points: ring.map(inPlan),
    height: thickness ? Math.abs(thickness) * factor : null,
    base: base || null,
  })
}

/** Closed lines with a height of their own: asked whether they are contours of the ground or outlines of buildings. */
function askContours({ read, withHeight }: Reading, answers: Answers): void {
  if (withHeight.length === 0) return
  const taken = answers.contours ?? 'contours'
  const some =
    withHeight.length === 1
      ? 'One closed line has a height of its'
      : `${withHeight.length} closed lines have a height of their`
  read.asks.push({
    what: 'contours',
    say: `${some} own, and no thickness`,
    options: [
      { value: 'contours', label: 'contours of the ground' },
      { value: 'outlines', label: 'outlines of buildings' },
    ],
    taken,
  })
  if (taken !== 'contours') return
  const gone = new Set(withHeight.map((c) => c.at))
  read.outlines = read.outlines.filter((_, i) => !gone.has(i))
  read.lines.push(...withHeight.map((c) => c.line))
}

/** What was left out, as sentences. */
function leftOut({ others, paper, off, invisible }: Things, drawing: Drawing): string[] {
  const out: string[] = []
  if (drawing.endsIn) {
    const where = drawing.endsIn === 'nothing' ? 'the middle' : `a ${drawing.endsIn}, which was left out`
    out.push(`The file ends early, in ${where}: what followed is missing. Export it once more.`)
  }
  if (others.size) out.push(`Left out: ${[...others].map(([type, n]) => `${n} ${type}`).join(', ')}.`)
  if (paper) out.push(`${paper} things on paper (title blocks, frames) were left out.`)
  if (off) out.push(`${off} things on layers that are off were left out.`)
  if (invisible) out.push(`${invisible} invisible ${invisible === 1 ? 'thing was' : 'things were'} left out.`)
  return out
}

/** Whether two outlines are one: a hatch and the line around it. */
function isAlike(a: Vec2[], b: Vec2[]): boolean {
  const [p, q] = [boxOf(a), boxOf(b)]
  const size = Math.max(p[2] - p[0], p[3] - p[1], TOLERANCE.least)
  const near = p.every((v, i) => Math.abs(v - (q[i] ?? NaN)) < 5 * TOLERANCE.curve)
  return near && Math.abs(Math.abs(loopArea(a)) - Math.abs(loopArea(b))) < 20 * TOLERANCE.curve * size
}
const boxOf = (points: Vec2[]): [number, number, number, number] => {
  const [x, y] = [points.map((p) => p[0]), points.map((p) => p[1])]
  return [Math.min(...x), Math.min(...y), Math.max(...x), Math.max(...y)]
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
