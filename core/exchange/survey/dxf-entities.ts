import { refuse } from '../../project'
import { READ_LIMITS, tooMany } from '../limits'

/** A thing of a drawing: its type and its groups (code and value), in order; a polyline of the older kind has its vertices. */
export interface Entity {
  type: string
  groups: [number, string][]
  vertices: Entity[]
}

/** What a drawing holds: its header's variables, its layers that are off or frozen, its blocks with their base points, its things. */
export interface Drawing {
  header: Map<string, string>
  hidden: Set<string>
  blocks: Map<string, Block>
  entities: Entity[]
  /** the type of the thing in which the text ends early; null where it ends as it should */
  endsIn: string | null
}

/** A block: entities drawn once and placed many times. `outside`: the name of the other drawing that it refers to. */
export interface Block {
  base: [number, number, number]
  entities: Entity[]
  outside: string | null
}

/** Reads the groups of a DXF text (pairs of lines). Errors: 'file'. */
export function readDrawing(text: string, name: string): Drawing {
  const lines = text.split(/\r\n|\r|\n/)
  const drawing: Drawing = { header: new Map(), hidden: new Set(), blocks: new Map(), entities: [], endsIn: null }
  let section = ''
  let variable = ''
  let block: (Block & { name: string }) | null = null
  let isEnded = false
  let current: Entity | null = null
  let polyline: Entity | null = null
  const close = () => {
    if (!current) return
    const { type } = current
    if (section === 'TABLES') {
      const colour = Number(valueOf(current, 62) ?? 7)
      if (type === 'LAYER' && (colour < 0 || (Number(valueOf(current, 70) ?? 0) & 1) === 1))
        drawing.hidden.add(valueOf(current, 2) ?? '')
    } else if (type === 'BLOCK')
      block = {
        name: valueOf(current, 2) ?? '',
        base: [numberOf(current, 10), numberOf(current, 20), numberOf(current, 30)],
        entities: [],
        // Flags 4 and 8: a reference to another drawing, or an overlay of one.
        outside: (numberOf(current, 70) & 12) !== 0 ? (valueOf(current, 1) ?? valueOf(current, 2) ?? '') : null,
      }
    else if (type === 'ENDBLK') {
      if (block) drawing.blocks.set(block.name, block)
      block = null
    } else if (type === 'VERTEX' && polyline) polyline.vertices.push(current)
    else if (type === 'SEQEND') polyline = null
    else {
      if (type === 'POLYLINE') polyline = current
      const into: Entity[] | null =
        section === 'ENTITIES' ? drawing.entities : section === 'BLOCKS' ? (block?.entities ?? null) : null
      into?.push(current)
      if (into && into.length > READ_LIMITS.placed) tooMany('things', name)
    }
    current = null
  }
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = Number.parseInt(lines[i] ?? '', 10)
    const value = (lines[i + 1] ?? '').trim()
    if (Number.isNaN(code)) {
      if (lines.slice(i).every((l) => l.trim() === '')) break
      refuse('file', `"${name}" is a damaged DXF: line ${i + 1} is no group code.`, 'Export it once more.')
    }
    if (code === 999) continue
    if (code === 0) {
      close()
      if (value === 'ENDSEC' || value === 'EOF') {
        if (value === 'EOF' || section === 'ENTITIES') isEnded = true
        section = ''
        continue
      }
      current = { type: value, groups: [], vertices: [] }
    } else if (current?.type === 'SECTION' && code === 2) {
      section = value
      current = null
    } else if (section === 'HEADER') {
      if (code === 9) variable = value
      else if (variable) {
        drawing.header.set(variable, value)
        variable = ''
      }
    } else current?.groups.push([code, value])
  }
  if (isEnded) close()
  else drawing.endsIn = leaveUnfinished(drawing, current, polyline)
  return drawing
}

/** Takes the thing out in which a text ends early: who knows what of it is missing. Gives its type. */
function leaveUnfinished(drawing: Drawing, current: Entity | null, polyline: Entity | null): string {
  drawing.entities = drawing.entities.filter((e) => e !== polyline)
  return polyline?.type ?? current?.type ?? 'nothing'
}

/** The first value of a group code; undefined where there is none. */
export const valueOf = (e: Entity, code: number): string | undefined => e.groups.find(([c]) => c === code)?.[1]
/** The same as a number. */
export function numberOf(e: Entity, code: number, otherwise = 0): number {
  const value = Number(valueOf(e, code) ?? otherwise)
  return Number.isFinite(value) ? value : otherwise
}
