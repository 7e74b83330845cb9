import { addParts, partsFrom, propose, rawName, usualChoices, type Candidate } from '../../fabric'
import { nextOrder, type Part } from '../../project'
import { rectsMeet } from '../../solid'
import { finding, type Check } from '../types'

/** A storey of a mass that has outer walls, but not on all faces that could have one. */
export const wallGap: Check = {
  kind: 'wall gap',
  run: ({ project, scheme, context, levels, forms }) => {
    const walls = new Map<string, Part[]>()
    for (const part of Object.values(scheme.parts)) {
      if (part.kind !== 'wall') continue
      const list = walls.get(part.host.mass)
      if (list) list.push(part)
      else walls.set(part.host.mass, [part])
    }
    return forms.flatMap((form) => {
      const own = walls.get(form.id)
      if (!own) return []
      const storeys = new Set(own.map((w) => w.base?.level))
      const stands = new Set(own.map((w) => `${rawName(w.host.face)}@${w.base?.level ?? ''}`))
      const near = forms.filter((o) => rectsMeet(o.rect, form.rect, 0.1))
      const missing = context.memo.of(form, 'gaps', [...own, null, ...levels.map((l) => `${l.height} ${l.kind}`), scheme.masses[form.id]?.takes, ...near], (): Candidate[] =>
        propose(context, [form.id]).candidates.filter((c) => c.part.kind === 'wall' && storeys.has(c.part.base?.level) && !stands.has(`${rawName(c.part.host.face)}@${c.part.base?.level ?? ''}`)))
      return missing.filter((c) => !own.some((w) => w.top === null && w.base && covers(w, c, context.heights))).map((c) => {
        const level = c.part.base?.level ?? null
        const name = levels.find((l) => l.id === level)?.name ?? ''
        const like = own.find((w) => w.base?.level === level)
        return finding('wall gap', `${form.id}:${c.part.host.face}:${level}:${c.part.host.piece}`, `${form.name} at ${name} has no wall on its face "${c.part.host.face.split('/').slice(1).join(' ')}"`, `The other faces of that storey have one: ${c.area.toFixed(2)} m² are open.`, {
          level, masses: [form.id], area: c.area,
          fix: { label: 'Make the wall', edit: (mint) => addParts(context, partsFrom(context, mint, [c], { ...usualChoices(project), wall: like?.buildUp ?? usualChoices(project).wall, wallSide: like?.side ?? 'inside' }).map((p) => ({ ...p, order: nextOrder(scheme.parts) }))) },
        })
      })
    })
  },
}

/** Whether a wall that runs up from below through the storey stands on the same face. */
const covers = (wall: Part, c: Candidate, heights: ReadonlyMap<string, number>): boolean =>
  rawName(wall.host.face) === rawName(c.part.host.face) && (heights.get(wall.base?.level ?? '') ?? 0) < (heights.get(c.part.base?.level ?? '') ?? 0)
