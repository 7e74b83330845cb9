import { isDict, showQuantity, thingOf, type Project, type Quantity } from '../project'
import { singles, type Edit } from './apply'
import type { LeafChange } from './difference'
import { sayPlace } from './say-place'

/** fields that hold angles, and numbers without a unit; all other numbers are lengths, or areas by their names */
const ANGLES = /^(angle|turn|direction|azimuth|trueNorth|sweep)$/
const NUMBERS =
  /^(order|count|columns|rows|steps|sides|opacity|scale|share|efficiency|cores|tolerance|precision|seed|every)$/
const AREAS = /area/i

const quantityOf = (field: string): Quantity =>
  ANGLES.test(field) ? 'angle' : NUMBERS.test(field) ? 'number' : AREAS.test(field) ? 'area' : 'length'

/** What an edit was to put where, as it can be typed again: 'The height of the raise of "Bar": 9.000 m'. Only plain values are told, the first few. */
export function sayEdit(project: Project, edit: Edit, most = 3): string | null {
  const said = singles(edit).flatMap((single): string[] => {
    if (single.edit !== 'patch') return []
    return single.changes.flatMap((c) => ('order' in c ? [] : (sayLeaf(project, c) ?? [])))
  })
  const more = said.length > most ? `, and ${said.length - most} more` : ''
  return said.length ? `${said.slice(0, most).join('; ')}${more}` : null
}

function sayLeaf(project: Project, { at, to }: LeafChange): string | null {
  const value = to ? sayValue(project, at.at(-1) ?? '', to.is) : null
  return value === null ? null : `${sayPlace(project, at)}: ${value}`
}

function sayValue(project: Project, field: string, value: unknown): string | null {
  if (typeof value === 'number') return showQuantity(value, quantityOf(field), project)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (isDict(value) && typeof value.formula === 'string') return value.formula.replace(/\{[^}]*\}/g, '...')
  if (typeof value !== 'string') return null
  const named = thingOf(project.uses, value) ?? thingOf(project.materials, value) ?? thingOf(project.buildUps, value)
  return `"${named?.name ?? value}"`
}
