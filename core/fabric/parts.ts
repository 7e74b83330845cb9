import { buildUpThickness } from './build-up'
import { inOrder, type Part } from '../project'
import { bodyVolume } from './body'
import { bondOf, type Bond } from './bond'
import type { FabricContext } from './context'
import { NOTHING, shapeless, shapeOf, throughWalls, type PartRole, type PartShape, type ThroughAt } from './part-shape'
import { lidsByMass, sharing, slabsByMass, wallInputs } from './wall-inputs'
import { shapeWalls, together, type WallShape, type WallInput } from './walls'

/** A part as computed: its tie, body and figures. area: m2 of face (walls, roofs) or of floor (slabs); volume m3. */
export interface PartStudy extends PartShape {
  id: string
  part: Part
  bond: Bond
  volume: number
  thickness: number
}

/** Computes parts from what they saw of their hosts and from the levels as they are; walls of a storey are joined together. */
export function studyParts(context: FabricContext, parts?: Part[]): PartStudy[] {
  const steps = partSteps(context, parts)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/** The same step by step: yields how much of it is done, 0 to 1, so that whoever runs it can pause, or leave off. */
export function* partSteps(
  context: FabricContext,
  parts: Part[] = inOrder(context.scheme.parts),
): Generator<number, PartStudy[]> {
  const thicknesses = new Map(
    Object.values(context.project.buildUps).map((b) => [b.id, buildUpThickness(b, context.numbers)]),
  )
  const thicknessOf = (part: Part) => thicknesses.get(part.buildUp) ?? 0
  const slabs = slabsByMass(context, parts, thicknessOf)
  const lids = lidsByMass(parts, thicknessOf)
  const shared = sharing(parts)
  const inputs: WallInput[] = []
  for (const [i, part] of parts.entries()) {
    if (part.kind === 'wall')
      inputs.push(
        ...context.attempts.run(
          nodeOf(part, 'face'),
          () => wallInputs(context, part, thicknessOf(part), slabs, lids, shared.get(part.id)),
          () => [],
        ),
      )
    if (i % STEP === 0) yield i / parts.length / 2
  }
  const stretches = new Map<string, WallShape[]>()
  for (const shape of shapeWalls(inputs, context.memo, context.attempts)) {
    const list = stretches.get(shape.part)
    if (list) list.push(shape)
    else stretches.set(shape.part, [shape])
  }
  const walls = new Map(
    [...stretches].flatMap(([id, list]) => {
      const wall = list[0] && context.memo.keep(list[0], 'together', list, () => together(list))
      return wall ? [[id, wall] as const] : []
    }),
  )
  const throughAt = throughWalls(context, parts, walls)

  const studied: PartStudy[] = []
  for (const [i, part] of parts.entries()) {
    studied.push(
      context.attempts.run(
        nodeOf(part, 'shape'),
        () => studyPart(context, part, thicknessOf(part), walls, throughAt),
        () => notShaped(part, thicknessOf(part)),
      ),
    )
    if (i % STEP === 0) yield 0.5 + i / parts.length / 2
  }
  return studied
}
/** how many parts are computed between two pauses */
const STEP = 64

const nodeOf = ({ id, name, host }: Part, what: string) => ({ what, id, name, parts: [id], masses: [host.mass] })

function studyPart(
  context: FabricContext,
  part: Part,
  thickness: number,
  walls: Map<string, WallShape>,
  throughAt: ThroughAt,
): PartStudy {
  const isMissing = part.kind === 'wall' && !walls.has(part.id)
  if (isMissing && context.attempts.hasFailed(part.id)) return notShaped(part, thickness)
  const tie = bondOf(context, part)
  const shape = shapeOf(context, part, thickness, tie, walls, throughAt)
  const isCovered = tie.status === 'bonded' && (isMissing || shape.plan === NOTHING)
  const bond = isCovered ? NOTHING_FREE : tie
  return context.memo.keep(part, 'study', [thickness, bond.status, bond.why, shape], () => ({
    id: part.id,
    part,
    bond,
    thickness,
    ...shape,
    volume: shape.body ? bodyVolume(shape.body) : 0,
  }))
}

const ROLE: Record<Part['kind'], PartRole> = {
  wall: 'wall',
  slab: 'floor slab',
  roof: 'flat roof',
  terrace: 'terrace',
  parapet: 'parapet',
}
/** A part that could not be computed: without a body, and on the list of findings. */
const notShaped = (part: Part, thickness: number): PartStudy => ({
  id: part.id,
  part,
  thickness,
  bond: { status: 'loose', why: 'it cannot be computed', left: true },
  ...shapeless(ROLE[part.kind]),
  volume: 0,
})

const NOTHING_FREE: Bond = { status: 'loose', why: 'nothing of its face stands free any more', left: false }
