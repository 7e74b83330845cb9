import { inOrder, MEASURES, numbersOf, Refusal, showQuantity, valueOf, type MeasureKind } from '@geotome/core/project'
import type { Vec2, Vec3 } from '@geotome/core/solid'
import { useProject } from '../app/hooks'
import { useAppSelector } from '../app/store'
import { toPane, type View } from './camera'
import type { Measuring } from './use-measure'

/** Measures kept on the model, and the one under way, with their values. Kept ones are drawn at the Ground desk's measuring only. */
export function MeasureMarks({
  view,
  size,
  origin,
  measure,
  kept: shown,
}: {
  view: View
  size: Vec2
  origin: Vec2
  measure: Measuring | null
  kept: boolean
}) {
  const { project } = useProject()
  const part = useAppSelector((s) => s.view.ground)
  const px = (p: number[]) => toPane(view, size, [(p[0] ?? 0) - origin[0], (p[1] ?? 0) - origin[1], p[2] ?? 0])
  if (!measure && (!shown || part !== 'pictures')) return null
  const numbers = numbersOf(project, null)
  const kept = inOrder(project.measures).filter((m) => m.picture === null)
  const all = measure?.next ? [...measure.points, measure.next] : (measure?.points ?? [])
  const live = measure && all.length >= MEASURES[measure.kind].points[0] ? valueSafely(measure.kind, all) : null
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
      {kept.map((m) => (
        <Mark
          key={m.id}
          points={m.points.map(px)}
          closed={m.kind === 'area'}
          text={`${m.name} ${showQuantity(numbers.value({ formula: `{${m.id}}` }, MEASURES[m.kind].quantity), MEASURES[m.kind].quantity, project)}`}
          colour="var(--ink2)"
        />
      ))}
      {measure && (
        <Mark
          points={all.map(px)}
          closed={measure.kind === 'area'}
          text={live === null ? '' : showQuantity(live, MEASURES[measure.kind].quantity, project)}
          colour="var(--cut)"
        />
      )}
      {measure?.next && (
        <>
          <circle
            cx={px(measure.next)[0]}
            cy={px(measure.next)[1]}
            r={5}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.4}
          />
          {measure.caught && (
            <text
              x={px(measure.next)[0] + 9}
              y={px(measure.next)[1] - 9}
              fontSize={11.5}
              fill="var(--ink)"
              style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}
            >
              corner
            </text>
          )}
        </>
      )}
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

function valueSafely(kind: MeasureKind, points: Vec3[]): number | null {
  try {
    return valueOf(kind, points)
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}
