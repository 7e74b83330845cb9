import { SaxesParser } from 'saxes'
import { refuse } from '../../project'
import type { Vec3 } from '../../solid'
import { nothing, textOf, type SurveyReader } from './kind'

/** LandXML 1.x: points of surfaces and of the survey, breaklines, contours. Its order is north, east, height. */
export const landxml: SurveyReader = {
  extensions: ['xml', 'landxml'],
  read(bytes, name) {
    const read = nothing()
    const parser = new SaxesParser()
    const path: string[] = []
    let text = ''
    let land = false
    let factor = 1
    parser.on('opentag', (tag) => {
      const local = tag.name.replace(/^.*:/, '')
      path.push(local)
      text = ''
      if (local === 'LandXML') land = true
      if (local === 'Imperial') factor = String(tag.attributes.linearUnit ?? '').includes('US') ? 1200 / 3937 : 0.3048
      if (local === 'CoordinateSystem' && tag.attributes.epsgCode) read.system = `EPSG:${String(tag.attributes.epsgCode)}`
    })
    parser.on('text', (t) => { text += t })
    parser.on('closetag', () => {
      const local = path.pop()
      const list = () => numbersIn(text)
      const triples = (): Vec3[] => { const n = list(); return Array.from({ length: Math.floor(n.length / 3) }, (_, i): Vec3 => [(n[i * 3 + 1] ?? 0) * factor, (n[i * 3] ?? 0) * factor, (n[i * 3 + 2] ?? 0) * factor]) }
      if (local === 'P' || local === 'CgPoint') { const [p] = triples(); if (p) read.points.push(p) }
      if (local === 'PntList3D') { const line = triples(); if (path.includes('Breakline') || path.includes('Contour')) { if (line.length > 1) read.lines.push(line) } else read.points.push(...line) }
      text = ''
    })
    parser.on('error', (e) => refuse('file', `"${name}" is damaged XML: ${e.message}.`, 'Export it once more.'))
    parser.write(textOf(bytes)).close()
    if (!land) refuse('file', `"${name}" is XML, but no LandXML.`, 'Choose a LandXML file with a surface.')
    if (read.points.length + read.lines.length === 0) refuse('file', `There is no surface in "${name}".`, 'Export the ground as a surface with its points.')
    return read
  },
}

const numbersIn = (text: string): number[] => text.trim().split(/\s+/).filter(Boolean).map(Number).filter(Number.isFinite)
