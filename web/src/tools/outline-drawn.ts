import { turnedShape } from '@geotome/core/form'
import { corners } from '@geotome/core/moves'
import { numbersOf, showQuantity } from '@geotome/core/project'
import { arcBetween, arcPoints, placePoint, type Frame, type Vec2, type Vec3, gapOf } from '@geotome/core/solid'
import type { LiveField, Mark, Taken, World } from './kind'
import {
  bulgeTo,
  isThree,
  nextPoint,
  pointsOf,
  shapeDrawn,
  sidesOf,
  sizeOnCircle,
  smoothed,
  type DrawKind,
  type DrawState,
} from './outline-state'
import { outlineUse } from './outlines/list'
import { axesOn, pointIn } from './planes'
import { directionLabel, directionSaid } from './typed'

/** What stands in the live fields of an outline on its way. */
export function fieldsOf(kind: DrawKind, s: DrawState, world: World, { on, becomes }: Taken): LiveField[] {
  const { depth } = outlineUse(becomes)
  const [right, up] = axesOn(on)
  const show = (v: number) => showQuantity(v, 'length', world.project)
  // What has no width yet still says its depth.
  const next = nextPoint(kind, s, world, on) ?? s.cursor?.point ?? null
  const last = s.points.at(-1)
  const size = sizeOnCircle(s)
  const live: [string, string][] =
    s.stage === 'height'
      ? [[depth?.label ?? 'height', s.upTo ? `to ${s.upTo.name}` : show(s.height)]]
      : !last
        ? [
            [right, s.cursor ? show(s.cursor.point[0]) : ''],
            [up, s.cursor ? show(s.cursor.point[1]) : ''],
          ]
        : kind === 'circle'
          ? [
              [size.label, next ? show(gapOf(next, last) * size.times) : ''],
              ...(s.form ? [['sides', String(s.sides)] as [string, string]] : []),
            ]
          : kind === 'rectangle' && isThree(s) && s.points.length === 2
            ? [['depth', next ? show(Math.abs(sidesOf(s, next)[1])) : '']]
            : kind === 'rectangle' && !isThree(s)
              ? [
                  ['width', next ? show(Math.abs(sidesOf(s, next)[0])) : ''],
                  [on ? 'height' : 'depth', next ? show(Math.abs(sidesOf(s, next)[1])) : ''],
                ]
              : [
                  ['length', next ? show(gapOf(next, last)) : ''],
                  [directionLabel(world, on), next ? directionSaid(last, next, world, on) : ''],
                  ...(s.side === 'straight' || s.side === 'curve' || kind !== 'polygon'
                    ? []
                    : [
                        ['rise', next ? show((bulgeTo(kind, s, next, world) * gapOf(next, last)) / 2) : ''] as [
                          string,
                          string,
                        ],
                      ]),
                ]
  return live.map(([label, text], i) => ({ label, live: text, typed: s.typed[i] ?? '' }))
}

/** What is drawn of it over the stage. */
export function marksOf(kind: DrawKind, s: DrawState, world: World, plane: Frame, { on, becomes }: Taken): Mark[] {
  const isOpen = outlineUse(becomes).isOpen ?? false
  const up = (p: Vec2): Vec3 => pointIn(plane, p)
  const next = s.stage === 'outline' ? nextPoint(kind, s, world, on) : null
  const ring = formRing(kind, s, next, world) ?? ringOf(kind, s, next, next ? bulgeTo(kind, s, next, world) : 0)
  const caught = s.stage === 'outline' ? s.cursor : null
  return [
    ...(on?.kind === 'upright' ? planeMarks(up) : []),
    {
      kind: 'path',
      points: ring.map(up),
      closed: ring.length > 2 && (s.stage === 'height' || kind !== 'polygon'),
      filled: !isOpen,
    },
    ...(caught?.along ? [{ kind: 'guide' as const, from: up(caught.along[0]), to: up(caught.along[1]) }] : []),
    ...(s.through ? [{ kind: 'ring' as const, at: up(s.through), word: null }] : []),
    ...s.points.map((p): Mark => ({ kind: 'dot', at: up(p) })),
    ...(caught
      ? [{ kind: 'ring' as const, at: up(caught.point), word: s.only ? `held ${caught.word}` : caught.word }]
      : []),
  ]
}

/** An upright plane to draw on: its foot, and the upright through its first point. */
const planeMarks = (at: (p: Vec2) => Vec3): Mark[] => [
  { kind: 'guide', from: at([-SHOWN / 2, 0]), to: at([SHOWN, 0]) },
  { kind: 'guide', from: at([0, -SHOWN / 4]), to: at([0, SHOWN / 2]) },
]
/** m of a plane that are shown */
const SHOWN = 40

/** A ready form as it would be made; null where none is drawn, or not yet. */
function formRing(kind: DrawKind, s: DrawState, next: Vec2 | null, { project, scheme }: World): Vec2[] | null {
  const points = next ? [...s.points, next] : s.points
  if (!s.form || points.length < pointsOf(kind, s)) return null
  const { origin, shape, turn } = turnedShape(shapeDrawn(kind, { ...s, points }))
  const at = { x: origin[0], y: origin[1], z: 0, turn }
  // What has no size yet has no corners.
  if (sidesOf({ ...s, points }, points.at(-1) as Vec2).some((d) => d === 0) && kind === 'rectangle') return null
  return corners(shape, numbersOf(project, scheme)).map((p) => placePoint(p, at))
}

/** What is drawn so far as points to be joined, arcs in their facets; the side under way leads to `next`. */
function ringOf(kind: DrawKind, s: DrawState, next: Vec2 | null, bulge: number): Vec2[] {
  const [a, b] = [s.points[0], next ?? s.points[1]]
  if (kind === 'rectangle' && isThree(s)) return next ? [...s.points, next] : s.points
  if (kind === 'rectangle') return a && b ? [a, [b[0], a[1]], b, [a[0], b[1]]] : s.points
  if (kind === 'circle')
    return a && b ? arcPoints({ x: a[0], y: a[1], r: gapOf(b, a), from: 0, sweep: 2 * Math.PI, n: 72 }) : []
  const drawn = next ? [...s.points, next] : s.points
  const before = s.points.length - 1
  const { points, bulges } = smoothed(
    {
      points: drawn,
      bulges: next ? [...s.bulges.slice(0, before), bulge] : s.bulges,
      curved: next ? [...s.curved.slice(0, before), s.side === 'curve'] : s.curved,
    },
    !next,
  )
  return points.flatMap((p, i): Vec2[] => {
    const q = points[i + 1] ?? (next ? undefined : points[0])
    const arc = q && arcBetween(p, q, bulges[i] ?? 0)
    return arc ? arcPoints(arc).slice(0, -1) : [p]
  })
}
