import { inOrder, MEASURES, numbersOf, showQuantity } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useProject } from '../app/hooks'
import { useAppSelector } from '../app/store'
import { toPane, type View } from './camera'

/** Measures kept on the model, with their values: drawn where pictures are worked on. */
export function KeptMeasures({ view, size, origin }: { view: View; size: Vec2; origin: Vec2 }) {
  const { project } = useProject()
  const part = useAppSelector((s) => s.view.ground)
  if (part !== 'pictures') return null
  const px = (p: number[]) => toPane(view, size, [(p[0] ?? 0) - origin[0], (p[1] ?? 0) - origin[1], p[2] ?? 0])
  const numbers = numbersOf(project, null)
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
      {inOrder(project.measures)
        .filter((m) => m.picture === null)
        .map((m) => (
          <Mark
            key={m.id}
            points={m.points.map(px)}
            closed={m.kind === 'area'}
            text={`${m.name} ${showQuantity(numbers.value({ formula: `{${m.id}}` }, MEASURES[m.kind].quantity), MEASURES[m.kind].quantity, project)}`}
            colour="var(--ink2)"
          />
        ))}
    </svg>
  )
}

function Mark({ points, closed, text, colour }: { points: Vec2[]; closed: boolean; text: string; colour: string }) {
  if (points.length === 0) return null
  const middle = points.reduce((s, p): Vec2 => [s[0] + p[0] / points.length, s[1] + p[1] / points.length], [0, 0])
  return (
    <g>
      <path
        d={points.map(([x, y], i) => `${i ? 'L' : 'M'}${x} ${y}`).join('') + (closed && points.length > 2 ? 'Z' : '')}
        fill="none"
        stroke={colour}
        strokeWidth={1.2}
      />
      {points.map((p, i) => (
        <circle key={i} cx={p[0]} cy={p[1]} r={2.5} fill={colour} />
      ))}
      <text
        x={middle[0]}
        y={middle[1] - 5}
        textAnchor="middle"
        fontSize={11.5}
        fontWeight={600}
        fill={colour}
        style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}
      >
        {text}
      </text>
    </g>
  )
}
