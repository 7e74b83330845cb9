import { boxOf, faceName, loftBody, railsOf, TOLERANCE, type Fold, type Section } from '../solid'
import { refuse, tidy, type AtLevel, type Num, type StandingNumbers } from '../values'
import { moveKind } from './define'
import { heightIn, length, type HeightField } from './fields'
import type { Form, MoveBase } from './kind'
import { checkShape, outlineOf, shifted, singleLine } from './outline'
import type { OutlineShape } from './shapes/list'

/** An outline further up: at a height or level, from a place in the mass's frame (m). */
export interface LoftSection {
  id: string
  z: Num
  level: AtLevel | null
  x: Num
  y: Num
  shape: OutlineShape
}

export interface LoftMove extends MoveBase {
  move: 'loft'
  sections: LoftSection[]
  /** what becomes of faces that are not flat */ faces: Fold
}

const HEIGHT: HeightField = { is: 'height', label: 'at', level: 'level' }

/**
 * A body from the outline to others further up, of any shape, with straight lines between their corners. Its faces: <id>/<edge>, <id>/top,
 * <id>/base. What is not flat stays warped, or is folded along a diagonal.
 */
export const loft = moveKind<LoftMove>({
  move: 'loft',
  called: 'a loft',
  group: 'shape',
  takes: 'plan',
  gives: 'body',
  placed: true,
  fields: {
    sections: {
      is: 'list',
      label: 'outlines further up',
      one: 'outline',
      least: 1,
      most: 60,
      item: {
        z: HEIGHT,
        x: length('its corner, x'),
        y: length('its corner, y'),
        shape: { is: 'shape', label: 'outline' },
      },
      next: (items, { corners, numbers }) => {
        const last = items.at(-1) as unknown as LoftSection | undefined
        const shape: OutlineShape = last?.shape ?? { kind: 'polygon', corners }
        const z = last ? tidy(numbers.length(last.z) + 3.5) : 6
        return { z, level: null, x: last?.x ?? 0, y: last?.y ?? 0, shape }
      },
    },
    faces: {
      is: 'choice',
      label: 'if not flat',
      options: [
        { value: 'warped', label: 'warped' },
        { value: 'right', label: 'folded, rising right' },
        { value: 'left', label: 'folded, rising left' },
      ],
    },
  },
  starts: ({ corners, height }) =>
    corners.length < 3
      ? null
      : {
          sections: [{ id: 's1', z: tidy(height), level: null, x: 0, y: 0, shape: { kind: 'polygon', corners } }],
          faces: 'warped',
        },
  dependsOn: (_m, numbers) => [...numbers.heights.values()].map((h) => (h - numbers.base).toFixed(6)).join(),
  check: (m, { form, name, numbers }) => {
    for (const [i, s] of m.sections.entries()) checkShape(s.shape, `outline ${i + 1} of the loft of "${name}"`, numbers)
    sectionsOf(form(), m, numbers, name)
  },
  build: (form, m, { numbers, name }) => {
    const rails = railsOf(sectionsOf(form, m, numbers, name))
    const storeys = [...numbers.heights.values()].map((h) => tidy(h - numbers.base)).sort((a, b) => a - b)
    const names = {
      base: faceName(m.id, 'base'),
      top: faceName(m.id, 'top'),
      side: (edge: string) => faceName(m.id, edge),
    }
    const solid = loftBody(rails, names, m.faces, storeys)
    return { ...form, outline: null, carried: null, solid, eaves: boxOf(solid.positions).z1 }
  },
})

/** All sections from the outline up. Errors: 'geometry' where there is a hole, or one lies not above the one before. */
export function sectionsOf(form: Form, m: LoftMove, numbers: StandingNumbers, name: string): Section[] {
  const [first, hole] = outlineOf(form)
  if (hole || !first)
    return refuse(
      'geometry',
      `The outline of "${name}" has a hole, which cannot be lofted.`,
      'Close it, and cut it out afterwards.',
    )
  const sections: Section[] = [{ z: 0, line: first }]
  for (const s of m.sections) {
    const z = heightIn(HEIGHT, 'z', s as never, numbers) ?? 0
    const before = sections.at(-1)?.z ?? 0
    if (z - before < TOLERANCE.least)
      refuse(
        'geometry',
        `An outline of the loft of "${name}" lies at ${tidy(z)} m, and the one before it at ${tidy(before)} m.`,
        'Let each lie above the one before.',
      )
    const line = singleLine(s.shape, numbers, `An outline of the loft of "${name}"`)
    sections.push({
      z,
      line: shifted(line, [numbers.length(s.x) - form.anchor[0], numbers.length(s.y) - form.anchor[1]]),
    })
  }
  return sections
}
