import { SaxesParser } from 'saxes'
import { refuse } from '../../project'
import { TOLERANCE, type Vec2, type Vec3, gapOf } from '../../solid'
import { METRES, nothing, textOf, type SurveyReader } from './kind'

/** Metres to the linear units that LandXML names. */
const UNITS: Record<string, number> = {
  meter: 1,
  millimeter: 0.001,
  centimeter: 0.01,
  kilometer: 1000,
  foot: 0.3048,
  USSurveyFoot: 1200 / 3937,
  inch: 0.0254,
  mile: 1609.344,
}

interface SurfaceRead {
  name: string
  points: Vec3[]
  lines: Vec3[][]
}

/** LandXML 1.x: points of surfaces and of the survey, breaklines, contours, parcels. Its order is north, east, height. One surface is taken; which one is asked where there are several. */
export const landxml: SurveyReader = {
  extensions: ['xml', 'landxml'],
  read(bytes, name, { answers }) {
    const read = nothing()
    const parser = new SaxesParser()
    const path: string[] = []
    const surfaces: SurfaceRead[] = []
    const elevations: number[] = []
    let [text, land, factor, said] = ['', false, 1, false]
    let parcel: { name: string; points: Vec2[] } | null = null
    const into = () => (path.includes('Surface') ? (surfaces.at(-1) ?? read) : read)
    parser.on('opentag', (tag) => {
      const local = tag.name.replace(/^.*:/, '')
      path.push(local)
      text = ''
      if (path.length > 200) refuse('file', `"${name}" nests too deeply.`, 'Export it once more.')
      if (local === 'LandXML') land = true
      const unit = String(tag.attributes.linearUnit ?? '')
      if ((local === 'Metric' || local === 'Imperial') && UNITS[unit]) {
        factor = UNITS[unit] ?? 1
        said = true
      } else if (local === 'Imperial') {
        factor = METRES.ft ?? 1
        said = true
      } else if (local === 'Metric') said = true
      if (local === 'CoordinateSystem' && tag.attributes.epsgCode)
        read.system = `EPSG:${String(tag.attributes.epsgCode)}`
      if (local === 'Surface')
        surfaces.push({ name: String(tag.attributes.name ?? `surface ${surfaces.length + 1}`), points: [], lines: [] })
      if (local === 'Parcel') parcel = { name: String(tag.attributes.name ?? 'parcel'), points: [] }
      elevations.push(Number(tag.attributes.elev ?? tag.attributes.elevation ?? elevations.at(-1) ?? NaN))
    })
    parser.on('text', (t) => {
      text += t
    })
    parser.on('closetag', () => {
      const local = path.pop()
      const elevation = elevations.pop() ?? NaN
      const n = numbersIn(text)
      const rows = (size: 2 | 3): Vec3[] =>
        Array.from({ length: Math.floor(n.length / size) }, (_, i): Vec3 => [
          (n[i * size + 1] ?? 0) * factor,
          (n[i * size] ?? 0) * factor,
          (size === 3 ? (n[i * 3 + 2] ?? 0) : elevation) * factor,
        ])
      const line = (points: Vec3[]) => {
        if (path.includes('Breakline') || path.includes('Contour') || path.includes('PlanFeature')) {
          if (points.length > 1) into().lines.push(points)
        } else into().points.push(...points)
      }
      if (local === 'P' || local === 'CgPoint') {
        const [p] = rows(3)
        if (p) into().points.push(p)
      }
      if (local === 'PntList3D') line(rows(3))
      if (local === 'PntList2D' && parcel) parcel.points.push(...rows(2).map(([x, y]): Vec2 => [x, y]))
      else if (local === 'PntList2D') {
        if (Number.isFinite(elevation)) line(rows(2))
        else if (n.length) read.remarks.push('Lines without heights were left out.')
      }
      if ((local === 'Start' || local === 'End') && parcel && n.length >= 2) {
        const p: Vec2 = [(n[1] ?? 0) * factor, (n[0] ?? 0) * factor]
        const last = parcel.points.at(-1)
        if (!last || gapOf(last, p) > TOLERANCE.point) parcel.points.push(p)
      }
      if (local === 'Parcel' && parcel) {
        const [a, b] = [parcel.points[0], parcel.points.at(-1)]
        if (a && b && parcel.points.length > 1 && gapOf(a, b) < TOLERANCE.point) parcel.points.pop()
        if (parcel.points.length >= 3)
          read.outlines.push({ name: parcel.name, points: parcel.points, height: null, base: null })
        parcel = null
      }
      text = ''
    })
    parser.on('error', (e) => refuse('file', `"${name}" is damaged XML: ${e.message}.`, 'Export it once more.'))
    parser.write(textOf(bytes)).close()
    if (!land) refuse('file', `"${name}" is XML, but no LandXML.`, 'Choose a LandXML file with a surface.')
    if (!said) read.remarks.push('The file does not say its unit; it was read in metres.')
    const full = surfaces.filter((s) => s.points.length + s.lines.length > 0)
    const chosen = full.find((s) => s.name === answers.surface) ?? full[0]
    if (chosen && full.length > 1)
      read.asks.push({
        what: 'surface',
        say: `The file has ${full.length} surfaces`,
        options: full.map((s) => ({ value: s.name, label: `${s.name}, ${s.points.length} points` })),
        taken: chosen.name,
      })
    // A loop, not a spread: surfaces have hundreds of thousands of points.
    for (const p of chosen?.points ?? []) read.points.push(p)
    for (const l of chosen?.lines ?? []) read.lines.push(l)
    if (read.points.length + read.lines.length + read.outlines.length === 0)
      refuse('file', `There is no surface in "${name}".`, 'Export the ground as a surface with its points.')
    return { ...read, remarks: [...new Set(read.remarks)] }
  },
}

const numbersIn = (text: string): number[] =>
  text.trim().split(/\s+/).filter(Boolean).map(Number).filter(Number.isFinite)
