import { levelHeights } from '@geotome/core/levels'
import { outlineFault } from '@geotome/core/moves'
import { editNumber, readTyped, refuse, type Num } from '@geotome/core/project'
import { type Vec2, gapOf } from '@geotome/core/solid'
import { catchPoint, sizeNear } from './catching'
import type { Answer, PointerAt, Taken, Tool, World } from './kind'
import { fieldsOf, marksOf } from './outline-drawn'
import { outlineHint } from './outline-hint'
import {
  bulgeTo,
  CLEAR,
  FORMS,
  nextPoint,
  pointsOf,
  round,
  secondIs,
  shapeDrawn,
  SIDE_KINDS,
  sidesOf,
  smoothed,
  START,
  type DrawKind,
  type DrawState,
  type SideKind,
} from './outline-state'
import { outlineUse } from './outlines/list'
import { axesOn, edgesIn, levelPlane } from './planes'

/**
 * Drawing an outline by presses and typed lengths in any mix, then, where it is raised, its height by moving or typing, caught at levels.
 * What it becomes is told by `taken.becomes`.
 */
export const outlineTool = (kind: DrawKind): Tool<DrawState> => ({
  name: kind,
  aims: 'plane',
  help:
    kind === 'polygon'
      ? [
          ['A while drawing', 'next kind of side: straight, arc, tangent, free curve'],
          ['D while drawing', 'holds the direction that is caught, or lets it go'],
          ['S while drawing', 'takes the length, or the radius, of the side under the pointer'],
        ]
      : kind === 'rectangle'
        ? [
            ['Shift while drawing', 'holds to an axis'],
            ['A while drawing', 'next way, and next ready footprint'],
          ]
        : [['A while drawing', 'a circle, or equal sides']],
  plane: (taken, world) => taken.on?.frame ?? levelPlane(outlineUse(taken.becomes).on === 'ground' ? 0 : baseOf(world)),
  begin: () => START,
  answer: (s, event, world, taken) => {
    switch (event.kind) {
      case 'move':
        return moved(kind, s, event.at, world, taken)
      case 'press':
        return accepted(kind, s, false, world, taken)
      case 'accept':
        return accepted(kind, s, true, world, taken)
      case 'type':
        return showing(
          kind,
          { ...s, typed: s.typed.map((t, i) => (i === event.field ? event.text : t)) as unknown as DrawState['typed'] },
          world,
          taken,
        )
      case 'choose':
        return kind === 'polygon'
          ? { state: { ...s, side: event.choice as SideKind, through: null } }
          : { state: { ...s, form: event.choice === kind ? '' : event.choice } }
      case 'size': {
        const size = s.raw && s.stage === 'outline' && s.points.length ? sizeNear(s.raw, edgesIn(taken, world)) : null
        if (size === null) return { state: s }
        const text = editNumber(size, 'length', world.project)
        return { state: { ...s, typed: [text, s.typed[1], s.typed[2]] } }
      }
      case 'hold':
        return { state: { ...s, only: s.only ? null : (s.cursor?.way ?? null) } }
      case 'back':
        return stepBack(kind, s, world, taken)
    }
  },
  hint: (s, world, taken) => outlineHint(kind, s, outlineUse(taken.becomes), world, taken),
  step: (s) => `${s.stage} ${s.points.length}`,
  fields: (s, world, taken) => fieldsOf(kind, s, world, taken),
  choices: (s, taken) =>
    s.stage !== 'outline'
      ? null
      : kind === 'polygon'
        ? s.points.length
          ? { label: 'The next side', options: SIDE_KINDS, chosen: s.side, key: 'A', where: 'pointer' }
          : null
        : FORMED.includes(taken.becomes ?? '')
          ? { label: 'What is drawn', options: FORMS[kind], chosen: s.form || kind, key: 'A', where: 'bar' }
          : null,
  marks: (s, world, plane, taken) => marksOf(kind, s, world, plane, taken),
})

/** What ready forms are drawn for. */
const FORMED = ['mass', 'patch', 'section']

const baseOf = ({ project, scheme, level }: World): number =>
  levelHeights(project, scheme).find((l) => l.id === level)?.height ?? 0

/** The state with what it shows on the stage as if it were made. */
function showing(kind: DrawKind, s: DrawState, world: World, taken: Taken): Answer<DrawState> {
  if (s.stage !== 'height') return { state: s }
  const height = typedHeight(s, world)
  return {
    state: s,
    tried: outlineUse(taken.becomes).make(
      shapeDrawn(kind, s, outlineUse(taken.becomes).isOpen),
      { height, upTo: s.typed[0].trim() ? null : (s.upTo?.id ?? null) },
      world,
      taken,
    ).edit,
  }
}

function typedHeight(s: DrawState, { project, scheme }: World): Num {
  try {
    return s.typed[0].trim() ? readTyped(s.typed[0], 'length', project, scheme).num : s.height
  } catch {
    return s.height
  }
}

function moved(kind: DrawKind, s: DrawState, at: PointerAt, world: World, taken: Taken): Answer<DrawState> {
  const { project, scheme } = world
  const stride = project.stride.length
  if (s.stage === 'outline')
    return {
      state: {
        ...s,
        raw: at.raw,
        cursor: catchPoint(at.raw, {
          edges: edgesIn(taken, world),
          drawn: s.points,
          pixel: at.pixel,
          stride,
          held: at.held,
          axes: axesOn(taken.on),
          marks: taken.on ? [] : world.marks,
          only: s.only,
        }),
      },
    }
  const { depth } = outlineUse(taken.becomes)
  if (depth) {
    const rising = s.rising?.pane === at.pane ? s.rising : { pane: at.pane, up: at.out }
    const out = (at.out - rising.up) * depth.towards
    // What lies within half a stride of the plane would be nothing: it goes on to the other side.
    const height = round((Math.round(out / stride) || (out < 0 ? -1 : 1)) * stride)
    return showing(kind, { ...s, rising, height: s.rising ? height : depth.begins, upTo: null }, world, taken)
  }
  const rising = s.rising?.pane === at.pane ? s.rising : { pane: at.pane, up: at.up }
  const levels = levelHeights(project, scheme)
  const base = baseOf(world)
  const raw = START.height + at.up - rising.up
  const caught = levels
    .filter((l) => l.height > base + 1e-3 && Math.abs(l.height - base - raw) < 6 * at.pixel)
    .sort((p, q) => Math.abs(p.height - base - raw) - Math.abs(q.height - base - raw))[0]
  return showing(
    kind,
    {
      ...s,
      rising,
      height: caught ? round(caught.height - base) : Math.max(stride, Math.round(raw / stride) * stride),
      upTo: caught ? { id: caught.id, name: caught.name } : null,
    },
    world,
    taken,
  )
}

/** The outline is whole: it is made, or its height comes next. */
function closed(kind: DrawKind, s: DrawState, world: World, taken: Taken): Answer<DrawState> {
  const use = outlineUse(taken.becomes)
  const { points, bulges } = smoothed(s, !use.isOpen)
  const fault =
    kind === 'polygon' && !use.isOpen ? outlineFault(points, null, bulges.some((b) => b !== 0) ? 2 : 3) : null
  if (fault) return { state: s, refused: `The outline ${fault.what}. ${fault.remedy}` }
  if (!use.rises)
    return { state: s, made: { ...use.make(shapeDrawn(kind, s, use.isOpen), null, world, taken), then: 'end' } }
  const height = use.depth?.begins ?? s.height
  return showing(
    kind,
    { ...s, stage: 'height', height, typed: CLEAR, cursor: null, through: null, rising: null },
    world,
    taken,
  )
}

/** Sets the next point, or accepts the height. */
function accepted(kind: DrawKind, s: DrawState, byEnter: boolean, world: World, taken: Taken): Answer<DrawState> {
  const { project, scheme } = world
  const { isOpen } = outlineUse(taken.becomes)
  // What cannot be read is refused with its sentence, and nothing is set.
  const nums = s.typed.map((text, i) =>
    text.trim()
      ? readTyped(text, i === 1 && s.stage === 'outline' ? secondIs(kind, s) : 'length', project, scheme).num
      : null,
  )
  if (s.stage === 'height') {
    const raised = { height: nums[0] ?? s.height, upTo: nums[0] === null ? (s.upTo?.id ?? null) : null }
    return {
      state: s,
      made: { ...outlineUse(taken.becomes).make(shapeDrawn(kind, s, isOpen), raised, world, taken), then: 'end' },
    }
  }
  const closing =
    kind === 'polygon' &&
    s.points.length >= 2 &&
    !s.typed[0] &&
    !s.typed[1] &&
    (byEnter
      ? s.points.length >= 3 || isOpen || s.bulges.some((b) => b !== 0)
      : s.cursor?.word === 'close here' && !isOpen)
  if (closing && isOpen) return closed(kind, s, world, taken)
  const point = closing ? (s.points[0] ?? null) : nextPoint(kind, s, world, taken.on)
  if (!point) return { state: s }
  // An arc through three points takes the point in between first.
  const wantsThrough = kind === 'polygon' && s.side === 'arc' && !s.through && s.points.length && !s.typed[2]
  if (wantsThrough && !(closing && byEnter)) return { state: { ...s, through: point, typed: CLEAR } }
  const last = s.points.at(-1)
  if (!closing && last && gapOf(point, last) < 1e-3) return { state: s }
  const bulges = last ? [...s.bulges.slice(0, s.points.length - 1), bulgeTo(kind, s, point, world)] : []
  const curved = last ? [...s.curved.slice(0, s.points.length - 1), s.side === 'curve'] : []
  if (closing)
    return s.points.length < 3 && bulges.every((b) => b === 0)
      ? { state: s }
      : closed(kind, { ...s, bulges, curved }, world, taken)
  const sides = kind === 'circle' && s.form && last && nums[1] !== null ? readSides(nums[1] ?? s.sides) : s.sides
  const next: DrawState = {
    ...s,
    sides,
    points: [...s.points, point],
    bulges,
    curved,
    through: null,
    only: null,
    typed: CLEAR,
  }
  const { ends } = outlineUse(taken.becomes)
  if (next.points.length < Math.min(pointsOf(kind, s), ends ?? Infinity)) return { state: next }
  if (ends) return closed(kind, next, world, taken)
  const [, b] = next.points as [Vec2, Vec2]
  if (kind === 'rectangle' && sidesOf(next, next.points[2] ?? b).some((d) => Math.abs(d) < 1e-3)) return { state: s }
  return closed(kind, next, world, taken)
}

/** How many equal sides are typed. Errors: 'size' unless it is a whole number from 3 to 200. */
const readSides = (num: Num): number =>
  typeof num === 'number' && Number.isInteger(num) && num >= 3 && num <= 200
    ? num
    : refuse('size', 'That is no number of sides.', 'Type a whole number from 3 to 200.')

function stepBack(kind: DrawKind, s: DrawState, world: World, taken: Taken): Answer<DrawState> {
  if (s.typed.some(Boolean)) return showing(kind, { ...s, typed: CLEAR }, world, taken)
  if (s.stage === 'height')
    return {
      state: { ...s, stage: 'outline', points: kind === 'polygon' ? s.points : s.points.slice(0, -1), rising: null },
      tried: null,
    }
  if (s.only) return { state: { ...s, only: null } }
  if (s.through) return { state: { ...s, through: null } }
  if (s.points.length)
    return {
      state: { ...s, points: s.points.slice(0, -1), bulges: s.bulges.slice(0, Math.max(0, s.points.length - 2)) },
    }
  return { state: s, tried: null, end: true }
}
