import type { Vec2 } from '../../solid'
import { type Reference, type Argument, enumeration } from './step'

/** Walls whose axes meet at their ends are joined there, as their bodies are. */
export function connect(
  walls: { entity: Reference; line: Vec2[]; id: string }[],
  relate: (type: string, of: string, ...args: Argument[]) => Reference,
): void {
  const key = ([x, y]: Vec2, dx = 0, dy = 0) => `${Math.round(x * 200) + dx} ${Math.round(y * 200) + dy}`
  const starts = new Map<string, (typeof walls)[number][]>()
  for (const wall of walls) {
    const k = key(wall.line[0] as Vec2)
    const list = starts.get(k)
    if (list) list.push(wall)
    else starts.set(k, [wall])
  }
  for (const wall of walls) {
    const end = wall.line.at(-1) as Vec2
    const next = [0, 1, -1]
      .flatMap((dx) => [0, 1, -1].flatMap((dy) => starts.get(key(end, dx, dy)) ?? []))
      .find((o) => o !== wall)
    if (next)
      relate(
        'IFCRELCONNECTSPATHELEMENTS',
        `joint/${wall.id}/${next.id}`,
        null,
        wall.entity,
        next.entity,
        [],
        [],
        enumeration('ATSTART'),
        enumeration('ATEND'),
      )
  }
}
