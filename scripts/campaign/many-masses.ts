import { newMass } from '@geotome/core/form'
import { blankProject, inOrder, writeProjectText, type Level, type Mass } from '@geotome/core/project'

/** The text of a project file with so many boxes, all of which stand in all of so many levels. */
export function manyMasses(masses: number, levels: number): Buffer {
  let n = 0
  const mint = () => `m-${++n}`
  const project = blankProject(mint, `${masses} masses, ${levels} levels`, 'm', null)
  const [scheme] = Object.values(project.schemes)
  if (!scheme) throw new Error('A blank project has a scheme.')
  const use = inOrder(project.uses)[0]?.id ?? ''
  const stack = Array.from({ length: levels }, (_, i): Level => ({
    id: `level-${i}`,
    name: `Level ${i}`,
    kind: 'storey',
    tie: { kind: 'fixed', height: i * 3 },
    floorBuildUp: 0,
    slab: 0,
  }))
  const standing: Mass[] = []
  const across = Math.ceil(Math.sqrt(masses))
  for (let i = 0; i < masses; i++) {
    const [x, y] = [(i % across) * 12, Math.floor(i / across) * 12]
    const shape = {
      kind: 'rectangle' as const,
      from: [x, y] as [number, number],
      to: [x + 13, y + 11] as [number, number],
    }
    standing.push(
      newMass(scheme, mint, { name: `Mass ${i}`, use, level: 'level-0', height: levels * 3, upTo: null, shape }),
    )
  }
  const ids = <T extends { id: string }>(things: T[]) => Object.fromEntries(things.map((t) => [t.id, t]))
  const built = { ...scheme, levels: ids(stack), masses: ids(standing) }
  return Buffer.from(writeProjectText({ ...project, schemes: { [scheme.id]: built } }))
}
