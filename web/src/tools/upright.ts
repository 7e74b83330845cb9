import { levelHeights } from '@geotome/core/levels'
import { showQuantity } from '@geotome/core/project'
import { gapOf, type Vec2 } from '@geotome/core/solid'
import { catchPoint, type Caught } from './catching'
import type { Mark, Tool, World } from './kind'
import { levelPlane, pointIn, uprightFrame } from './planes'
import { directionLabel, directionSaid, typedDirection, typedValue } from './typed'

/** What is drawn on the plane becomes a section that is carried away from it, or a line that is turned about its first point. */
const BECOMES = { 'carried straight': 'section', 'turned about the first point': 'profile' } as const
type Way = keyof typeof BECOMES

interface UprightState {
  way: Way
  first: Vec2 | null
  cursor: Caught | null
  typed: readonly [string, string]
}
const CLEAR: UprightState['typed'] = ['', '']

const footOf = ({ project, scheme, level }: World): number =>
  levelHeights(project, scheme).find((l) => l.id === level)?.height ?? 0

/** The point that the next press sets: what is typed wins over the pointer. */
function pointOf({ first, cursor, typed }: UprightState, world: World): Vec2 | null {
  const at = cursor?.point ?? null
  const [a, b] = [typedValue(typed[0], world), first ? typedDirection(typed[1], world) : typedValue(typed[1], world)]
  if (!first) {
    const [x, y] = [a ?? at?.[0], b ?? at?.[1]]
    return x === undefined || y === undefined ? null : [x, y]
  }
  if (a === null && b === null) return at
  const long = a ?? (at ? gapOf(at, first) : 10)
  const turn = b !== null ? (b * Math.PI) / 180 : at ? Math.atan2(at[1] - first[1], at[0] - first[0]) : 0
  return [first[0] + long * Math.cos(turn), first[1] + long * Math.sin(turn)]
}

/** An upright plane through two points, to draw on. */
export const uprightTool: Tool<UprightState> = {
  name: 'upright',
  aims: 'plane',
  help: [['A while choosing an upright plane', 'what is drawn is carried, or turned']],
  plane: (_, world) => levelPlane(footOf(world)),
  begin: () => ({ way: 'carried straight', first: null, cursor: null, typed: CLEAR }),
  answer: (s, event, world) => {
    switch (event.kind) {
      case 'move': {
        const { raw, pixel, held } = event.at
        const { edges, marks } = world
        const drawn = s.first ? [s.first] : []
        return {
          state: {
            ...s,
            cursor: catchPoint(raw, { edges, marks, drawn, pixel, held, stride: world.project.stride.length }),
          },
        }
      }
      case 'type':
        return { state: { ...s, typed: s.typed.map((t, i) => (i === event.field ? event.text : t)) as never } }
      case 'hold':
      case 'size':
        return { state: s }
      case 'choose':
        return { state: { ...s, way: event.choice as Way } }
      case 'press':
      case 'accept': {
        const point = pointOf(s, world)
        if (!point) return { state: s }
        const { first } = s
        if (!first) return { state: { ...s, first: point, typed: CLEAR } }
        if (gapOf(first, point) < 1e-3)
          return { state: s, refused: 'The two points are one. Click the second one farther off.' }
        const direction = (Math.atan2(point[1] - first[1], point[0] - first[0]) * 180) / Math.PI
        const plane = { at: first, direction: Math.round(direction * 1e9) / 1e9, foot: footOf(world) }
        return {
          state: s,
          next: {
            tool: 'polygon',
            becomes: BECOMES[s.way],
            on: { kind: 'upright', plane, frame: uprightFrame(plane) },
          },
        }
      }
      case 'back':
        return s.typed.some(Boolean)
          ? { state: { ...s, typed: CLEAR } }
          : s.first
            ? { state: { ...s, first: null } }
            : { state: s, end: true }
    }
  },
  hint: (s) =>
    s.first
      ? 'Click a second point: the plane stands upright on the line, and is seen from its right-hand side'
      : 'Click the first point of an upright plane; what is turned, is turned about it',
  step: (s) => (s.first ? 'second' : 'first'),
  fields: (s, world) => {
    const show = (v: number) => showQuantity(v, 'length', world.project)
    const at = s.cursor?.point
    const live: [string, string][] = s.first
      ? [
          ['length', at ? show(gapOf(at, s.first)) : ''],
          [directionLabel(world), at ? directionSaid(s.first, at, world) : ''],
        ]
      : [
          ['east', at ? show(at[0]) : ''],
          ['north', at ? show(at[1]) : ''],
        ]
    return live.map(([label, text], i) => ({ label, live: text, typed: s.typed[i] ?? '' }))
  },
  choices: (s) => ({
    label: 'What is drawn on it is',
    options: Object.keys(BECOMES),
    chosen: s.way,
    key: 'A',
    where: 'bar',
  }),
  marks: (s, world, plane) => {
    const point = pointOf(s, world)
    const at = (p: Vec2) => pointIn(plane, p)
    return [
      ...(s.first && point
        ? [{ kind: 'path' as const, points: [at(s.first), at(point)], closed: false, filled: false }]
        : []),
      ...(s.first ? [{ kind: 'dot' as const, at: at(s.first) }] : []),
      ...(s.cursor ? [{ kind: 'ring', at: at(s.cursor.point), word: s.cursor.word } satisfies Mark] : []),
    ]
  },
}
