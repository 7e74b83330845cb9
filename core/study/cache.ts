import { bodyKey, buildBody, standMass, type Body, type MassForm } from '../form'
import type { LevelHeight } from '../levels'
import type { Mass, Numbers } from '../project'
import { facesOfForm } from '../fabric'
import { computeIsland, islandsOf, lowRegion, plateOf, type Island, type Plate, type Share } from '../slice'
import { areaOf, placeSolid, rectsMeet, TOLERANCE, unionVolume, uniteRegions, type Region, type Vec2 } from '../solid'
import { planBox } from '../form'

/**
 * What a study computes, kept by the content it was computed from: a change costs what it touches. Things that were not
 * asked for in the last two studies are dropped.
 */
export class StudyCache {
  private run = 0
  private readonly bodies = new Aging<Body>()
  private readonly standing = new Aging<Standing>()
  private readonly floors = new Map<string, { shares: Share[]; smallest: number; islands: Island[] }>()
  private readonly islands = new WeakMap<Plate, { shares: Share[]; smallest: number; island: Island }[]>()
  private readonly volumes = new WeakMap<MassForm, { members: MassForm[]; volume: number }>()
  private readonly footprints = new WeakMap<MassForm, Region>()

  /** Begins a study: ages what is kept. */
  begin(): void {
    this.run++
    this.bodies.age(this.run)
    this.standing.age(this.run)
  }

  /** The mass standing on its level; the same object while nothing about it changes. */
  form(mass: Mass, numbers: Numbers, levelHeight: number): MassForm {
    const key = bodyKey(mass.recipe, numbers)
    const body = this.bodies.get(key, this.run, () => buildBody(mass.recipe, numbers, mass.name, key))
    const form = standMass(mass, body, numbers, levelHeight)
    const kept = this.standing.get(`${mass.id}#${form.key}`, this.run, () => ({ form, plates: new Map(), lows: new Map() }))
    if (kept.form.name !== form.name || kept.form.use !== form.use || kept.form.order !== form.order) kept.form = form
    this.byForm.set(kept.form, kept)
    return kept.form
  }
  private readonly byForm = new WeakMap<MassForm, Standing>()

  plate(form: MassForm, z: number): Plate | null {
    const plates = this.byForm.get(form)?.plates
    const known = plates?.get(z)
    if (known !== undefined) return known
    const plate = plateOf(form, z)
    plates?.set(z, plate)
    return plate
  }

  /** What one mass brings to a floor; the same object while its plate, headroom, use and order stay. */
  share(form: MassForm, plate: Plate, headroom: number): Share {
    const lows = this.byForm.get(form)?.lows
    const known = lows?.get(plate)
    if (known && known.headroom === headroom && known.share.use === form.use && known.share.order === form.order) return known.share
    const share: Share = { plate, low: known?.headroom === headroom ? known.share.low : lowRegion(form, plate, headroom), use: form.use, order: form.order }
    lows?.set(plate, { headroom, share })
    return share
  }

  /** The islands of a floor; only those whose shares changed are computed. */
  floorIslands(level: LevelHeight, shares: Share[], smallest: number): Island[] {
    const kept = this.floors.get(level.id)
    if (kept && kept.smallest === smallest && same(kept.shares, shares)) return kept.islands
    const islands = islandsOf(shares).map((group) => this.island(group, smallest))
    this.floors.set(level.id, { shares, smallest, islands })
    return islands
  }

  /** m3 of masses that touch, counted once. Masses given in one group meet each other. */
  groupVolume(group: MassForm[]): number {
    const [first, ...rest] = group
    if (!first) return 0
    if (rest.length === 0) return first.body.volume
    const kept = this.volumes.get(first)
    if (kept && same(kept.members, group)) return kept.volume
    const solids = group.map((f) => placeSolid(f.body.solid, { ...f.at, x: f.at.x - first.at.x, y: f.at.y - first.at.y, z: f.at.z - first.at.z }))
    const volume = unionVolume(solids)
    this.volumes.set(first, { members: group, volume })
    return volume
  }

  /** The plan of a mass, all its faces that look up. */
  footprint(form: MassForm): Region {
    let region = this.footprints.get(form)
    if (!region) {
      region = uniteRegions(facesOfForm(form).filter((f) => f.plane.n[2] > 1e-6).map((f) => f.loops.map((l) => l.map(([x, y]): Vec2 => [x, y]))).filter((r) => areaOf(r) > TOLERANCE.area))
      this.footprints.set(form, region)
    }
    return region
  }

  private island(group: Share[], smallest: number): Island {
    const first = group[0]?.plate
    if (!first) return computeIsland(group, smallest)
    const known = this.islands.get(first) ?? []
    const kept = known.find((k) => k.smallest === smallest && same(k.shares, group))
    if (kept) return kept.island
    const island = computeIsland(group, smallest)
    this.islands.set(first, [...known.slice(-3), { shares: group, smallest, island }])
    return island
  }
}

interface Standing { form: MassForm; plates: Map<number, Plate | null>; lows: Map<Plate, { headroom: number; share: Share }> }

const same = <T>(a: T[], b: T[]) => a.length === b.length && a.every((x, i) => x === b[i])

/** Values by key that are dropped when two runs pass without a use. */
class Aging<T> {
  private readonly entries = new Map<string, { value: T; used: number }>()
  get(key: string, run: number, make: () => T): T {
    let entry = this.entries.get(key)
    if (!entry) this.entries.set(key, entry = { value: make(), used: run })
    entry.used = run
    return entry.value
  }
  age(run: number): void {
    for (const [key, entry] of this.entries) if (entry.used < run - 2) this.entries.delete(key)
  }
}

/** Groups masses whose boxes touch; each group's volume is computed on its own. */
export function touchingGroups(forms: MassForm[]): MassForm[][] {
  const boxes = new Map(forms.map((f) => [f, planBox(f)]))
  const sorted = [...forms].sort((a, b) => (boxes.get(a)?.x0 ?? 0) - (boxes.get(b)?.x0 ?? 0))
  const parent = new Map(sorted.map((f) => [f, f]))
  const root = (f: MassForm): MassForm => { let r = f; while (parent.get(r) !== r) r = parent.get(r) as MassForm; return r }
  let active: MassForm[] = []
  for (const form of sorted) {
    const box = boxes.get(form) as ReturnType<typeof planBox>
    active = active.filter((o) => (boxes.get(o) as typeof box).x1 >= box.x0)
    for (const other of active) {
      if (other.base < form.top && form.base < other.top && rectsMeet(boxes.get(other) as typeof box, box, -TOLERANCE.point)) parent.set(root(form), root(other))
    }
    active.push(form)
  }
  const groups = new Map<MassForm, MassForm[]>()
  for (const form of forms) groups.set(root(form), [...(groups.get(root(form)) ?? []), form])
  return [...groups.values()]
}
