import {
  arcBetween,
  boxOf,
  faceName,
  gapOf,
  loopArea,
  profileStops,
  TOLERANCE,
  turnedBody,
  type ProfileEdge,
  type Vec2,
} from '../solid'
import { refuse, tidy, type Num, type Numbers } from '../values'
import { moveKind } from './define'
import { angle, direction, length, times } from './fields'
import { edgeLength, withGrooves, type Grooves } from './grooves'
import type { MoveBase, Note } from './kind'
import { outlineFault } from './outline-fault'
import { profileLine, profileText } from './profile'
import { roundJoint, setOff } from './round-joint'

/** A point of a profile: m from the axis, m up; `turn`: the degrees of the arc to the next, above zero to the left. */
export interface ProfilePoint {
  id: string
  r: Num
  z: Num
  turn: Num
}

export interface RevolveMove extends MoveBase {
  move: 'revolve'
  points: ProfilePoint[]
  /** degrees */ by: Num
  /** degrees: where it begins */ from: Num
  /** m; null: solid to its axis */ thick: Num | null
  /** the side of the profile that the thickness lies on */ side: 'axis' | 'away'
  /** whether grooves are cut into the thickness, along the profile: at a pitch from its foot, or spread evenly */
  grooves?: 'none' | 'pitch' | 'evenly'
  /** m */ pitch?: Num
  count?: Num
  /** m along the profile, and into the thickness */ wide?: Num
  deep?: Num
  /** the profile that is cut out instead, kept by name: open where it lies on its own line through its insertion point */ groove?:
    string | null
}

/**
 * Turns a profile about the upright axis through the mass's own zero: solid to the axis, or so thick. Faces: <id>/<point> for what lies over
 * the edge from each point of the profile, <id>/in/<point> within, <id>/base and <id>/top, <id>/start and <id>/end of a part of a turn.
 */
export const revolve = moveKind<RevolveMove>({
  move: 'revolve',
  called: 'a turn about an axis',
  title: 'revolve',
  group: 'shape',
  takes: 'nothing',
  gives: 'body',
  fields: {
    points: {
      is: 'list',
      label: 'profile, from below',
      one: 'point',
      least: 2,
      most: 200,
      item: {
        r: length('from the axis', { from: 0 }),
        z: length('up'),
        turn: angle('arc to the next turns by', {
          from: -350,
          to: 350,
          hint: '0 is straight, above zero to the left.',
        }),
      },
      next: (items, { numbers }) => {
        const last = items.at(-1) as unknown as ProfilePoint
        return { r: last.r, z: tidy(numbers.length(last.z) + 1), turn: 0 }
      },
    },
    by: angle('turns by', { from: 1, to: 360 }),
    from: direction<RevolveMove>('beginning at', 'mass', { when: (m) => m.by !== 360 }),
    thick: length('thickness', { otherwise: 'solid to its axis', from: TOLERANCE.least }),
    side: {
      is: 'choice',
      label: 'thick',
      options: [
        { value: 'axis', label: 'towards the axis' },
        { value: 'away', label: 'away from it' },
      ],
      when: (m: RevolveMove) => m.thick !== null,
    },
    grooves: {
      is: 'choice',
      label: 'grooves',
      options: [
        { value: 'none', label: 'none' },
        { value: 'pitch', label: 'at a pitch from its foot' },
        { value: 'evenly', label: 'spread evenly' },
      ],
      when: (m: RevolveMove) => m.thick !== null,
      absent: 'none',
    },
    pitch: length('pitch', { from: TOLERANCE.least, when: (m) => grooved(m) === 'pitch', absent: 0.18 }),
    count: times('in all', { from: 1, to: 5000, when: (m) => grooved(m) === 'evenly', absent: 10 }),
    groove: {
      is: 'profile',
      label: 'cut out',
      otherwise: 'a rectangle',
      when: (m: RevolveMove) => grooved(m) !== 'none',
      absent: null,
    },
    wide: length('wide', { from: TOLERANCE.least, when: (m) => grooved(m) !== 'none' && !m.groove, absent: 0.02 }),
    deep: length('deep', { from: TOLERANCE.least, when: (m) => grooved(m) !== 'none' && !m.groove, absent: 0.02 }),
  },
  starts: ({ plan, height }) => {
    const reach = plan.length ? Math.sqrt(Math.abs(loopArea(plan[0]?.points ?? [])) / Math.PI) : 4
    const r = Math.max(0.5, Math.round(reach * 10) / 10)
    return {
      points: [
        { id: 'p1', r, z: 0, turn: 0 },
        { id: 'p2', r, z: tidy(height), turn: 0 },
      ],
      by: 360,
      from: 0,
      thick: null,
      side: 'axis',
    }
  },
  dependsOn: (m, numbers) =>
    `${[...numbers.heights.values()].map((h) => (h - numbers.base).toFixed(6)).join()}${profileText(m.groove, numbers)}`,
  check: (m, { name, numbers }) => {
    const { loop } = profileOf(m, numbers, name)
    const points = profileStops(loop, []).map((s) => s.at)
    if (points.some(([r]) => r < -TOLERANCE.point))
      refuse('outline', `The profile of "${name}" crosses its axis.`, 'Keep all of it on one side of the axis.')
    const fault = outlineFault(points)
    if (fault)
      refuse(
        'outline',
        `The profile of "${name}" ${fault.what}.`,
        'Move its points so that it does not cross or touch itself.',
      )
  },
  build: (form, m, { numbers, name }) => {
    const { loop, idle } = profileOf(m, numbers, name)
    const storeys = [...numbers.heights.values()].map((h) => tidy(h - numbers.base))
    const by = numbers.angle(m.by)
    const turn = { from: by === 360 ? 0 : (numbers.angle(m.from) * Math.PI) / 180, sweep: (by * Math.PI) / 180 }
    const solid = turnedBody(profileStops(loop, storeys), turn, {
      start: faceName(m.id, 'start'),
      end: faceName(m.id, 'end'),
    })
    const notes: Note[] = idle.length
      ? [
          {
            id: m.id,
            say: `The profile of "${name}" encloses nothing between ${idle.map((e) => `${at(e.a)} and ${at(e.b)}`).join(', ')}: it runs level, away from the axis.`,
            remedy: 'Thicken the profile, so that it is a rim there, or leave those points out.',
            set: { label: 'Thicken it by 0.30 m', fields: { thick: 0.3 } },
          },
        ]
      : []
    const radii = profileStops(loop, []).map((s) => s.at[0])
    const turned = by === 360 ? { solid, from: Math.max(0, Math.min(...radii)), to: Math.max(...radii) } : undefined
    return { ...form, solid, turned, eaves: boxOf(solid.positions).z1, notes: [...form.notes, ...notes] }
  },
})

const at = ([r, z]: Vec2) => `${r.toFixed(2)} m, ${z.toFixed(2)} m`

/** A profile as a closed line, counter-clockwise about what it encloses, and its edges that enclose nothing. */
export function profileOf(
  m: RevolveMove,
  numbers: Numbers,
  name: string,
): { loop: ProfileEdge[]; idle: ProfileEdge[] } {
  const edges = edgesOf(m, numbers, name)
  if (m.thick !== null) {
    const thick = numbers.length(m.thick)
    const cut =
      grooved(m) === 'none' ? edges : withGrooves(edges, groovesOf(m, edges, numbers, name), thick, m.side, name)
    return { loop: sense(thickened(edges, thick, m.side, m.id, name, cut)), idle: [] }
  }
  // Where it ends level and away from the axis, its way back to the axis runs over it: it encloses nothing there.
  const idle: ProfileEdge[] = []
  const isLevel = (e: ProfileEdge | undefined): e is ProfileEdge =>
    e !== undefined && !e.arc && Math.abs(e.a[1] - e.b[1]) < TOLERANCE.point
  for (let e = edges.at(-1); isLevel(e) && e.b[0] > e.a[0]; e = edges.at(-1)) idle.unshift(edges.pop() as ProfileEdge)
  for (let e = edges[0]; isLevel(e) && e.a[0] > e.b[0]; e = edges[0]) idle.push(edges.shift() as ProfileEdge)
  const [first, last] = [edges[0], edges.at(-1)]
  if (!first || !last)
    return refuse(
      'outline',
      `The profile of "${name}" encloses nothing.`,
      'Give it a point further up, or a thickness.',
    )
  const [foot, head]: [Vec2, Vec2] = [
    [0, first.a[1]],
    [0, last.b[1]],
  ]
  const closing = [
    ...(last.b[0] > TOLERANCE.point ? [straight('top', last.b, head)] : []),
    ...(gapOf(head, foot) > TOLERANCE.point ? [straight('axis', head, foot)] : []),
    ...(first.a[0] > TOLERANCE.point ? [straight('base', foot, first.a)] : []),
  ]
  const rises = last.b[1] >= first.a[1]
  const own = [...edges, ...closing.map((e) => (rises ? e : { ...e, name: OTHER[e.name] ?? e.name }))]
  return { loop: sense(own.map((e) => ({ ...e, name: faceName(m.id, e.name) }))), idle }
}

/** The profile's edges as they were drawn. */
function edgesOf(m: RevolveMove, numbers: Numbers, name: string): ProfileEdge[] {
  const points = m.points.map((p): Vec2 => [numbers.length(p.r), numbers.length(p.z)])
  return m.points.slice(0, -1).map((p, i): ProfileEdge => {
    const [a, b] = [points[i], points[i + 1]] as [Vec2, Vec2]
    if (gapOf(a, b) < TOLERANCE.least)
      refuse(
        'outline',
        `Points ${i + 1} and ${i + 2} of the profile of "${name}" lie together.`,
        'Move one, or take it off.',
      )
    return edgeBetween(p.id, a, b, Math.tan((numbers.angle(p.turn) * Math.PI) / 720))
  })
}

const grooved = (m: RevolveMove): 'none' | 'pitch' | 'evenly' => (m.thick === null ? 'none' : (m.grooves ?? 'none'))

/** The grooves along a profile: m from its foot to the middle of each, and what is cut out there. */
function groovesOf(m: RevolveMove, edges: readonly ProfileEdge[], numbers: Numbers, name: string): Grooves {
  const long = edges.reduce((sum, e) => sum + edgeLength(e), 0)
  const whole = (value: number) =>
    Number.isInteger(value)
      ? value
      : refuse('size', `A number of grooves of "${name}" is ${value}.`, 'Type a whole number.')
  const pitch = numbers.length(m.pitch ?? 0.18)
  const count =
    grooved(m) === 'pitch'
      ? Math.floor(long / pitch + TOLERANCE.rounding)
      : whole(numbers.value(m.count ?? 10, 'number'))
  if (count > 5000)
    refuse(
      'size',
      `The profile of "${name}" would have ${count} grooves.`,
      'Type a longer pitch: at most 5,000 are cut.',
    )
  const apart = grooved(m) === 'pitch' ? pitch : long / count
  const [wide, deep] = [numbers.length(m.wide ?? 0.02), numbers.length(m.deep ?? 0.02)]
  const cut: Vec2[] = m.groove
    ? profileLine(m.groove, numbers).points
    : [
        [-wide / 2, 0],
        [wide / 2, 0],
        [wide / 2, deep],
        [-wide / 2, deep],
      ]
  return { at: Array.from({ length: count }, (_, i) => apart * (i + 0.5)), cut }
}

/** The pitches of a profile's grooves: how many, how long each (m), and what is left of it (m). Null where there are none. */
export function groovePitches(m: RevolveMove, numbers: Numbers): { count: number; pitch: number; left: number } | null {
  if (grooved(m) === 'none') return null
  const edges = edgesOf(m, numbers, '')
  const long = edges.reduce((sum, e) => sum + edgeLength(e), 0)
  const { at } = groovesOf(m, edges, numbers, '')
  const pitch = grooved(m) === 'pitch' ? numbers.length(m.pitch ?? 0.18) : long / at.length
  return { count: at.length, pitch, left: long - pitch * at.length }
}

const OTHER: Record<string, string> = { top: 'base', base: 'top' }

const straight = (name: string, a: Vec2, b: Vec2): ProfileEdge => ({ name, a, b, arc: null })

function edgeBetween(name: string, a: Vec2, b: Vec2, bulge: number): ProfileEdge {
  const arc = arcBetween(a, b, bulge)
  return { name, a, b, arc: arc && { r: arc.x, z: arc.y, radius: arc.r, from: arc.from, sweep: arc.sweep } }
}

/** The line run counter-clockwise. */
function sense(loop: ProfileEdge[]): ProfileEdge[] {
  const points = profileStops(loop, []).map((s) => s.at)
  return loopArea(points) >= 0 ? loop : [...loop].reverse().map(turnedRound)
}

const turnedRound = ({ name, whole, ...edge }: ProfileEdge): ProfileEdge => ({
  name,
  ...backwards(edge),
  ...(whole ? { whole: backwards(whole) } : {}),
})
const backwards = ({ a, b, arc }: Omit<ProfileEdge, 'name'>) => ({
  a: b,
  b: a,
  arc: arc && { ...arc, from: arc.from + arc.sweep, sweep: -arc.sweep },
})

/** An arc about the same centre between two other points, run round in the same sense. */
function arcFrom(arc: NonNullable<ProfileEdge['arc']>, a: Vec2, b: Vec2): NonNullable<ProfileEdge['arc']> {
  const turn = ([r, z]: Vec2) => Math.atan2(z - arc.z, r - arc.r)
  const near = (angle: number, to: number) => angle + Math.round((to - angle) / (2 * Math.PI)) * 2 * Math.PI
  const from = near(turn(a), arc.from)
  return { ...arc, from, sweep: near(turn(b), arc.from + arc.sweep) - from }
}

/** A profile and the same set off to a side (m), closed at its ends. Lines meet in their mitres, arcs stay about their centres. */
function thickened(
  edges: ProfileEdge[],
  thick: number,
  side: 'axis' | 'away',
  id: string,
  name: string,
  front: ProfileEdge[] = edges,
): ProfileEdge[] {
  const [first, last] = [edges[0], edges.at(-1)] as [ProfileEdge, ProfileEdge]
  const rises = last.b[1] !== first.a[1] ? last.b[1] > first.a[1] : last.b[0] < first.a[0]
  // The axis lies to the left of a profile that rises.
  const off = thick * ((side === 'axis') === rises ? 1 : -1)
  const leaving = (e: ProfileEdge, end: 0 | 1): Vec2 => {
    if (!e.arc) return [(e.b[0] - e.a[0]) / gapOf(e.a, e.b), (e.b[1] - e.a[1]) / gapOf(e.a, e.b)]
    const turn = e.arc.from + (end ? e.arc.sweep : 0)
    const s = Math.sign(e.arc.sweep)
    return [-Math.sin(turn) * s, Math.cos(turn) * s]
  }
  const moved = (p: Vec2, way: Vec2): Vec2 => [p[0] - way[1] * off, p[1] + way[0] * off]
  const joint = (e: ProfileEdge, f: ProfileEdge): Vec2 => {
    const [u, w] = [leaving(e, 1), leaving(f, 0)]
    const cross = u[0] * w[1] - u[1] * w[0]
    if (Math.abs(cross) < TOLERANCE.slope) return moved(e.b, u)
    const [p, q] = [moved(e.b, u), moved(f.a, w)]
    if (e.arc || f.arc) return roundJoint(setOff(e, p, u, off), setOff(f, q, w, off), [p, q], name)
    const t = ((q[0] - p[0]) * w[1] - (q[1] - p[1]) * w[0]) / cross
    return [p[0] + u[0] * t, p[1] + u[1] * t]
  }
  const corners = [
    moved(first.a, leaving(first, 0)),
    ...edges.slice(1).map((f, i) => joint(edges[i] as ProfileEdge, f)),
    moved(last.b, leaving(last, 1)),
  ]
  const back = edges.map((e, i): ProfileEdge => {
    const [a, b] = [corners[i], corners[i + 1]] as [Vec2, Vec2]
    const radius = e.arc ? e.arc.radius - off * Math.sign(e.arc.sweep) : 0
    const gone = e.arc
      ? radius < TOLERANCE.least
      : (b[0] - a[0]) * (e.b[0] - e.a[0]) + (b[1] - a[1]) * (e.b[1] - e.a[1]) <= 0
    if (gone)
      refuse(
        'outline',
        `Thickened by ${thick} m, an edge of the profile of "${name}" is gone.`,
        'Make it thinner, or choose the other side.',
      )
    return { name: faceName(id, 'in', e.name), a, b, arc: e.arc && arcFrom({ ...e.arc, radius }, a, b) }
  })
  return [
    ...front.map((e) => ({ ...e, name: faceName(id, e.name) })),
    straight(faceName(id, rises ? 'top' : 'base'), last.b, corners.at(-1) as Vec2),
    ...back.reverse().map(turnedRound),
    straight(faceName(id, rises ? 'base' : 'top'), corners[0] as Vec2, first.a),
  ]
}
