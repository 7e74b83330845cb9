import { joinMasses, setPitch } from '../form'
import type { Project } from '../project'
import type { Vec2 } from '../solid'
import { apply, massNamed, minter, projectWith, schemeOf, withMass } from './make'

/** Block 9.6 x 16.4, eaves 5.70, 35 degrees, ridge along the 16.4; a porch 5.2 wide x 4.8 deep, eaves 2.85, ridge square to the block's long side. */
export function boatShed(options: { turned?: boolean; porchFirst?: boolean } = {}): Project {
  const order = (points: Vec2[]) => (options.turned ? [...points].reverse() : points)
  let project = projectWith([0, 2.85])
  const block = order([
    [0, 0],
    [9.6, 0],
    [9.6, 16.4],
    [0, 16.4],
  ])
  const porch = order([
    [9.6, 5.6],
    [14.4, 5.6],
    [14.4, 10.8],
    [9.6, 10.8],
  ])
  const draw = [
    () => {
      project = withMass(project, { name: 'Block', height: 5.7, points: block })
    },
    () => {
      project = withMass(project, { name: 'Porch', height: 2.85, points: porch })
    },
  ]
  for (const step of options.porchFirst ? draw.reverse() : draw) step()
  const pitch = (name: string, direction: number) => {
    project = apply(
      project,
      setPitch(schemeOf(project), massNamed(project, name), minter(`${name}pitch`), { angle: 35, direction }),
    )
  }
  pitch('Block', 90)
  pitch('Porch', 0)
  return project
}

export function joinedShed(options: Parameters<typeof boatShed>[0] = {}): Project {
  const project = boatShed(options)
  const [a, b] = options?.porchFirst ? ['Porch', 'Block'] : ['Block', 'Porch']
  return apply(
    project,
    joinMasses(project, schemeOf(project), minter('join'), massNamed(project, a).id, massNamed(project, b).id),
  )
}
