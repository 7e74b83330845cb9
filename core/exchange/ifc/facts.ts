import type { Project } from '../../project'
import { int, label, type Reference, type StepWriter } from './step'

/**
 * Project data as IFC has it: the site's place on the earth and address, true north, and what has no attribute of its own as properties.
 */

/** The direction of true north in the plan of the model; null where it is project north. */
export function trueNorth(step: StepWriter, { location }: Project): Reference | null {
  const a = (location.trueNorth * Math.PI) / 180
  return location.trueNorth === 0 ? null : step.add('IFCDIRECTION', [Math.sin(a), Math.cos(a)])
}

/** Degrees as IfcCompoundPlaneAngleMeasure: degrees, minutes, seconds, millionths of a second, all of one sign. */
export function compoundAngle(degrees: number | null): readonly { text: string }[] | null {
  if (degrees === null) return null
  const sign = Math.sign(degrees) || 1
  const millionths = Math.round(Math.abs(degrees) * 3600e6)
  return [
    Math.floor(millionths / 3600e6),
    Math.floor(millionths / 60e6) % 60,
    Math.floor(millionths / 1e6) % 60,
    millionths % 1e6,
  ].map((n) => int(sign * n))
}

/** The place as a postal address (IfcPostalAddress); null where none is told. */
export function address(step: StepWriter, { facts }: Project): Reference | null {
  const lines = facts.address
    .split(/[\n,]/)
    .map((l) => l.trim())
    .filter(Boolean)
  return lines.length
    ? step.add(
        'IFCPOSTALADDRESS',
        null,
        null,
        null,
        null,
        lines.map((l) => label(l)),
        null,
        null,
        null,
        null,
        null,
      )
    : null
}

/** Scheme, client, number, stage, author and the project's own fields as one property set; null where nothing is said. */
export function factProperties(step: StepWriter, { facts }: Project, scheme: string, id: string): Reference | null {
  const said: [string, string][] = [
    ['Scheme', scheme],
    ['Number', facts.number],
    ['Client', facts.client],
    ['Stage', facts.stage],
    ['Author', facts.author],
    ...facts.custom.map((c): [string, string] => [c.name, c.text]),
  ]
  const values = said
    .filter(([, text]) => text.trim())
    .map(([name, text]) => step.add('IFCPROPERTYSINGLEVALUE', label(name), null, step.typed('IFCTEXT', text), null))
  return values.length ? step.add('IFCPROPERTYSET', id, null, 'Project data', null, values) : null
}
