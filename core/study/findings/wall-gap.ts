import {
  addParts,
  partsFrom,
  propose,
  studyParts,
  usualChoices,
  type Candidate,
  type FabricContext,
  type PartStudy,
} from '../../fabric'
import { nextOrder, showQuantity, type Part } from '../../project'
import { faceTitle } from '../../form'
import { areaOf, intersectRegions, rectsMeet, uniteRegions, rawName } from '../../solid'
import { type Check } from '../types'
import { finding } from '../finding'

/** A storey of a mass that has outer walls, but not along all faces that could have one. */
export const wallGap: Check = {
  kind: 'wall gap',
  why: 'Net areas and quantities lack these walls.',
  afterwards: true,
  run: ({ project, scheme, context, levels, forms, parts }) => {
    const walls = new Map<string, PartStudy[]>()
    for (const study of parts) {
      if (study.part.kind !== 'wall') continue
      const list = walls.get(study.part.host.mass)
      if (list) list.push(study)
      else walls.set(study.part.host.mass, [study])
    }
    return forms.flatMap((form) => {
      const own = walls.get(form.id)
      if (!own) return []
      const storeys = new Set(own.map((w) => w.part.base?.level))
      const near = forms.filter((o) => rectsMeet(o.rect, form.rect, 0.1))
      const missing = context.memo.keep(
        form,
        'gaps',
        [...own, null, ...levels.map((l) => `${l.height} ${l.kind}`), scheme.masses[form.id]?.takes, ...near],
        (): Candidate[] => {
          const made = new Set(own.filter((w) => w.bond.status === 'bonded' && w.body).map((w) => placeOf(w.part)))
          const offered = propose(context, [form.id]).candidates.filter(
            (c) => c.part.kind === 'wall' && storeys.has(c.part.base?.level) && !made.has(placeOf(c.part)),
          )
          return offered.length ? uncovered(context, offered, own) : []
        },
      )
      return missing.map((c) => {
        const level = c.part.base?.level ?? null
        const name = levels.find((l) => l.id === level)?.name ?? ''
        const like = own.find((w) => w.part.base?.level === level)?.part
        return finding(
          'wall gap',
          `${form.id}:${c.part.host.face}:${level}:${c.part.host.piece}`,
          `${form.name} at ${name} has no wall on its face "${faceTitle(form, rawName(c.part.host.face))}"`,
          `The other faces of that storey have one: ${showQuantity(c.area, 'area', project)} are open.`,
          {
            level,
            masses: [form.id],
            area: c.area,
            fix: {
              label: 'Make the wall',
              edit: (mint) =>
                addParts(
                  context,
                  partsFrom(context, mint, [c], {
                    ...usualChoices(project),
                    wall: like?.buildUp ?? usualChoices(project).wall,
                    wallSide: like?.side ?? 'inside',
                  }).map((p) => ({ ...p, order: nextOrder(scheme.parts) })),
                ),
            },
          },
        )
      })
    })
  },
}

/** What a wall stands for: its face, the piece of it, and between which levels. */
const placeOf = ({ host, base, top }: Pick<Part, 'host' | 'base' | 'top'>): string =>
  JSON.stringify([host.face, host.piece, base, top])

/** Those walls that are offered along which, in plan and height, no wall stands for the most part. */
function uncovered(context: FabricContext, offered: Candidate[], own: PartStudy[]): Candidate[] {
  let n = 0
  const trial = studyParts(
    context,
    partsFrom(context, () => `gap-${++n}`, offered, usualChoices(context.project)),
  )
  const stands = own.map((w) => ({ w, ...heightsOf(context, w.part) }))
  return offered.filter((_, i) => {
    const wall = trial[i]
    if (!wall?.body) return false
    const { from, to } = heightsOf(context, wall.part)
    const middle = from + Math.min(to - from, 1) / 2
    const there = stands.filter((s) => s.from < middle && s.to > middle && s.w.plan.length).map((s) => s.w.plan)
    return areaOf(intersectRegions(wall.plan, uniteRegions(there))) < areaOf(wall.plan) / 2
  })
}

/** m: between which heights a wall stands, by its ties. */
function heightsOf(
  { heights, numbers }: FabricContext,
  part: Pick<Part, 'base' | 'top'>,
): { from: number; to: number } {
  const at = (tie: Part['base']) => (tie ? (heights.get(tie.level) ?? 0) + numbers.length(tie.above) : null)
  return { from: at(part.base) ?? -Infinity, to: at(part.top) ?? Infinity }
}
