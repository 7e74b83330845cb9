import type { PartStudy } from '../../fabric'
import type { Material, Project } from '../../project'
import type { Study } from '../../study'
import { enumeration, type Reference, type StepWriter } from './step'

/** Colours of materials, and layers by what a thing is, as readers show them. */
export class Looks {
  private readonly styles = new Map<string, Reference>()
  private readonly layers = new Map<string, Reference[]>()
  constructor(private readonly step: StepWriter) {}

  /** Colours the items of a body, and puts its representation on a layer. */
  dress(
    material: Material | null,
    layer: string,
    { items, representation }: { items: Reference[]; representation: Reference },
  ): void {
    const list = this.layers.get(layer)
    if (list) list.push(representation)
    else this.layers.set(layer, [representation])
    if (!material) return
    let style = this.styles.get(material.id)
    if (!style) {
      const [r, g, b] = [1, 3, 5].map((i) => parseInt(material.colour.slice(i, i + 2), 16) / 255) as [
        number,
        number,
        number,
      ]
      const colour = this.step.add('IFCCOLOURRGB', material.name, r, g, b)
      this.styles.set(
        material.id,
        (style = this.step.add('IFCSURFACESTYLE', material.name, enumeration('BOTH'), [
          this.step.add('IFCSURFACESTYLESHADING', colour, 1 - material.opacity),
        ])),
      )
    }
    for (const item of items) this.step.add('IFCSTYLEDITEM', item, [style], null)
  }

  /** Writes the layers down, once everything is on them. */
  close(): void {
    for (const [name, on] of this.layers) this.step.add('IFCPRESENTATIONLAYERASSIGNMENT', name, null, on, null)
  }
}

/** What a part is drawn in: what all of its kind are, or else the material of its outermost layer, where the project has one of that name. */
export function materialOf({ project }: Pick<Study, 'project'>, part: PartStudy): Material | null {
  const kind = project.kinds[part.part.kind]
  if (kind) return project.materials[kind] ?? null
  const outermost = project.buildUps[part.part.buildUp]?.layers[0]?.material.toLowerCase()
  return Object.values(project.materials).find((m) => m.name.toLowerCase() === outermost) ?? null
}

/** What a mass is drawn in. */
export const massMaterial = (project: Project, id: string | null | undefined): Material | null =>
  id ? (project.materials[id] ?? null) : null
