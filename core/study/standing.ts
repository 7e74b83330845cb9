import { bodyKey, buildBody, heightText, massesRead, standMass, type Body, type MassForm } from '../form'
import { hangsOn } from '../moves'
import { sameList, standingNumbers, type Mass, type Numbers } from '../project'
import { isSamePlate, plateOf, type Headroom, type Plate, type Share } from '../slice'
import { tierAt, TOLERANCE } from '../solid'
import { Aging, type Aged } from './aging'

/** How a mass stands, with its plates and what it brings to floors. */
export interface Standing {
  form: MassForm
  byTier: Map<number, Plate | null>
  /** those of the same mass when it stood otherwise */ before: Map<number, Plate | null> | undefined
  byHeight: Map<number, Plate | null>
  shares: Map<number, { headroom: Headroom; near: MassForm[]; share: Share | null }>
}

/** What a mass last stood from. */
interface Stood {
  numbers: Numbers
  heights: ReadonlyMap<string, number>
  reads: (Mass | undefined)[]
  /** the levels on whose heights alone it hangs; null where it hangs on more */ levels: string[] | null
  body: Aged<Body>
  standing: Aged<Standing>
}

/** The masses as they stand, and their plates: kept while nothing that they stand from changes, dropped when two studies pass without them. */
export class Standings {
  private run = 0
  private readonly forms = new WeakMap<Mass, Stood>()
  private readonly bodies = new Aging<Body>()
  private readonly standing = new Aging<Standing>()
  /** how each mass stood last */
  private readonly last = new Map<string, Aged<Standing>>()
  private readonly byForm = new WeakMap<MassForm, Standing>()
  /** cuts of twisted bodies at levels, by their content */
  private readonly turned = new Map<string, Plate | null>()

  /** Begins a study: ages what is kept. */
  begin(): void {
    this.run++
    this.bodies.age(this.run)
    this.standing.age(this.run)
    for (const [id, { used }] of this.last) if (used < this.run - 2) this.last.delete(id)
  }

  /** How a form of this study stands. */
  of(form: MassForm): Standing | undefined {
    return this.byForm.get(form)
  }

  /** The mass standing on its level; the same object while nothing about it changes. */
  form(mass: Mass, numbers: Numbers, heights: ReadonlyMap<string, number>, masses: Record<string, Mass>): MassForm {
    // Where numbers and heights are the very ones of last time, nothing needs to be asked.
    const known = this.forms.get(mass)
    const stays =
      known?.levels?.every((id) => known.heights.get(id) === heights.get(id)) ??
      (known?.numbers === numbers && known.heights === heights)
    const reads = known?.levels ? NONE : massesRead(mass.recipe, masses)
    if (known && stays && sameList(known.reads, reads)) {
      const { form } = known.standing.value
      // Another mass of the same id and form may have had another use since: before an undo, or in a duplicated scheme.
      if (form.name === mass.name && form.use === mass.use && form.order === mass.order) {
        known.body.used = known.standing.used = this.run
        return form
      }
    }
    const standing = standingNumbers(mass, numbers, heights, masses)
    const key = bodyKey(mass.recipe, standing)
    const body = this.bodies.get(key, this.run, () => buildBody(mass.recipe, standing, mass.name, key)).value
    const form = standMass(mass, body, numbers, heights.get(mass.base.level) ?? 0)
    const entry = this.standing.get(`${mass.id}#${form.key}`, this.run, () => ({
      form,
      byTier: new Map(),
      before: this.last.get(mass.id)?.value.byTier,
      byHeight: new Map(),
      shares: new Map(),
    }))
    this.last.set(mass.id, entry)
    const kept = entry.value
    const bodyEntry = this.bodies.get(key, this.run, () => body)
    const { base, place } = mass
    const isPlain = [base.above, place.x, place.y, place.turn].every((num) => typeof num === 'number')
    const levels = isPlain && reads.length === 0 ? hangsOn(mass.recipe, standing) : null
    this.forms.set(mass, {
      numbers,
      heights,
      reads,
      levels: levels && [base.level, ...levels],
      body: bodyEntry,
      standing: entry,
    })
    if (kept.form.name !== form.name || kept.form.use !== form.use || kept.form.order !== form.order) {
      kept.form = form
      kept.shares.clear()
    }
    // A level dragged through a thousand heights leaves a thousand cuts behind.
    if (kept.byHeight.size > 1000) kept.byHeight.clear()
    if (kept.shares.size > 1000) kept.shares.clear()
    this.byForm.set(kept.form, kept)
    return kept.form
  }

  /** The plate of a mass at a height; one object for all heights at which the cut is the same. */
  plate(form: MassForm, z: number): Plate | null {
    if (z < form.base - TOLERANCE.height || z > form.top - TOLERANCE.height) return null
    const kept = this.byForm.get(form)
    if (!kept) return plateOf(form, z)
    const { turned } = form.body
    const at = turned && heightText(z - form.at.z)
    if (turned && at !== null && turned.rows.has(at)) {
      // The same outline at the same turn, whatever the other levels do.
      const { x, y, turn } = form.at
      const name = `${turned.key}@${x},${y},${turn}@${at}`
      let plate = this.turned.get(name)
      if (plate === undefined) {
        if (this.turned.size > 4000) this.turned.clear()
        this.turned.set(name, (plate = plateOf(form, z)))
      }
      return plate?.mass === form.id ? plate : plate && { ...plate, mass: form.id }
    }
    const tiers = form.body.tiers()
    const tier = tierAt(tiers, z - form.at.z)
    const [plates, key] = tiers.constant[tier] ? [kept.byTier, tier] : [kept.byHeight, z]
    let plate = plates.get(key)
    if (plate !== undefined) return plate
    plate = plateOf(form, z)
    // Raised or carried up, a mass has the plates that it had: what hangs on them stays.
    const before = plates === kept.byTier ? kept.before?.get(tier) : null
    if (plate && before && isSamePlate(plate, before)) plate = before
    plates.set(key, plate)
    return plate
  }
}

const NONE: never[] = []
