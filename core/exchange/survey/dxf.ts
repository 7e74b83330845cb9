import { denormalise, parseString, type Entity } from './dxf-package.js'
import { refuse } from '../../project'
import { arcBetween, arcPoints, type Vec2, type Vec3 } from '../../solid'
import { nothing, textOf, type SurveyReader } from './kind'

/** Metres to a drawing unit, by DXF's numbers for units: inches, feet, millimetres, centimetres, metres; a drawing without units is in metres. */
const UNITS: Record<number, number> = { 1: 0.0254, 2: 0.3048, 4: 0.001, 5: 0.01, 6: 1 }

/** DXF: points, lines, polylines; closed polylines are outlines, whose thickness is a height. Blocks are taken apart. */
export const dxf: SurveyReader = {
  extensions: ['dxf'],
  read(bytes, name) {
    const text = textOf(bytes)
    if (!/^\s*(0|999)\s/.test(text)) refuse('file', `"${name}" is no DXF text.`, 'Export it as DXF in text form (ASCII), not binary.')
    let entities: Entity[] = []
    let factor = 1
    try {
      const parsed = parseString(text)
      factor = UNITS[parsed.header?.insUnits ?? 6] ?? 1
      entities = denormalise(parsed)
    } catch { refuse('file', `"${name}" is a damaged DXF.`, 'Export it once more.') }
    const read = nothing()
    const p3 = (p: { x?: number; y?: number; z?: number }, z = 0): Vec3 => [(p.x ?? 0) * factor, (p.y ?? 0) * factor, (p.z ?? z) * factor]
    const others = new Map<string, number>()
    for (const e of entities) {
      if (e.type === 'POINT') read.points.push(p3(e))
      else if (e.type === 'LINE' && e.start && e.end) read.lines.push([p3(e.start), p3(e.end)])
      else if ((e.type === 'LWPOLYLINE' || e.type === 'POLYLINE') && e.vertices && !e.polyfaceMesh && !e.polygonMesh) {
        const line = e.vertices.map((q) => p3(q, e.elevation ?? 0))
        const [a, b] = [line[0], line.at(-1)]
        const back = a && b && line.length > 3 && Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-6
        if (e.closed || back) {
          const flat = (back ? line.slice(0, -1) : line).map(([x, y]): Vec2 => [x, y])
          const z = line[0]?.[2] ?? 0
          read.outlines.push({ name: e.layer ?? null, points: rounded(flat, e.vertices.map((q) => q.bulge ?? 0)), height: e.thickness ? Math.abs(e.thickness) * factor : null, base: z || null })
        } else if (line.length > 1) read.lines.push(line)
      } else if (e.type === '3DFACE' && e.vertices) read.points.push(...e.vertices.map((q) => p3(q)))
      else others.set(e.type, (others.get(e.type) ?? 0) + 1)
    }
    if (others.size) read.remarks.push(`Left out: ${[...others].map(([type, n]) => `${n} ${type}`).join(', ')}.`)
    if (read.points.length + read.lines.length + read.outlines.length === 0) refuse('file', `There is no point, line or closed polyline in "${name}".`, 'Export the boundary as a closed polyline, and the ground as points or lines.')
    return read
  },
}

/** Bulged sides as their facets. */
const rounded = (points: Vec2[], bulges: number[]): Vec2[] => points.flatMap((p, i): Vec2[] => { const arc = arcBetween(p, points[(i + 1) % points.length] as Vec2, bulges[i] ?? 0); return arc ? arcPoints(arc).slice(0, -1) : [p] })
