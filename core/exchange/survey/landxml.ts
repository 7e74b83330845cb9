import { SaxesParser } from 'saxes'
import { refuse } from '../../project'
import type { Vec2, Vec3 } from '../../solid'
import { parcelOutline, type ParcelRead } from './landxml-parcel'
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

/** The places of a stretch of a boundary by their elements. */
const ENDS: Record<string, 'start' | 'end' | 'centre'> = { Start: 'start', End: 'end', Center: 'centre' }

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
    let parcel: ParcelRead | null = null
    const parcels: ParcelRead[] = []
    const surveyed = new Map<string, Vec2>()
    // Attributes of the elements that are open, from the outside in.
    const open: Record<string, string>[] = []
    const into = () => (path.includes('Surface') ? (surfaces.at(-1) ?? read) : read)
    parser.on('opentag', (tag) => {
      const local = tag.name.replace(/^.*:/, '')
      path.push(local)
      open.push(Object.fromEntries(Object.entries(tag.attributes).map(([key, value]) => [key, String(value)])))
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
      if (local === 'Parcel') parcel = { name: String(tag.attributes.name ?? 'parcel'), stretches: [] }
      if (parcel && (local === 'Line' || local === 'Curve' || local === 'Spiral'))
        parcel.stretches.push({ kind: local, clockwise: tag.attributes.rot === 'cw', corners: [] })
      elevations.push(Number(tag.attributes.elev ?? tag.attributes.elevation ?? elevations.at(-1) ?? NaN))
    })
    parser.on('text', (t) => {
      text += t
    })
    parser.on('closetag', () => {
      const local = path.pop()
      const attributes = open.pop() ?? {}
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
        const [flat = p] = rows(2)
        if (local === 'CgPoint' && flat && attributes.name) surveyed.set(attributes.name, [flat[0], flat[1]])
        if (p) into().points.push(p)
      }
      if (local === 'PntList3D') line(rows(3))
      if (local === 'PntList2D' && parcel)
        parcel.stretches.push({ kind: 'corners', clockwise: false, corners: rows(2).map(([x, y]): Vec2 => [x, y]) })
      else if (local === 'PntList2D') {
        if (Number.isFinite(elevation)) line(rows(2))
        else if (n.length) read.remarks.push('Lines without heights were left out.')
      }
      const stretch = parcel?.stretches.at(-1)
      const end = ENDS[local ?? '']
      if (stretch && end) {
        const [flat] = rows(2)
        if (flat) stretch[end] = [flat[0], flat[1]]
        else if (attributes.pntRef) stretch[end] = { name: attributes.pntRef }
      }
      if (local === 'Parcel' && parcel) {
        parcels.push(parcel)
        parcel = null
      }
      text = ''
    })
    parser.on('error', (e) => refuse('file', `"${name}" is damaged XML: ${e.message}.`, 'Export it once more.'))
    parser.write(textOf(bytes)).close()
    if (!land) refuse('file', `"${name}" is XML, but no LandXML.`, 'Choose a LandXML file with a surface.')
    if (!said) read.remarks.push('The file does not say its unit; it was read in metres.')
    for (const p of parcels) {
      const { points, remark } = parcelOutline(p, surveyed)
      if (points) read.outlines.push({ name: p.name, points, height: null, base: null })
      if (remark) read.remarks.push(remark)
    }
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
