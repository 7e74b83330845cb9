import { numbersOf, ruleRun } from '@geotome/core/project'
import { inRule, planNow } from '@geotome/core/rules'
import { arcBetween, arcPoints, placePoint, type PlanCorner, type Vec2 } from '@geotome/core/solid'
import { useProject } from '../app/hooks'
import { useAppSelector } from '../app/store'
import { toPane, type View } from './camera'

/** px between labels, below which they are left out */
const ROOM = 34

/** What the step of a rule that is looked at makes: its outlines at the rule's base, with their keys; the one under the pointer lit up. */
export function RuleMarks({ view, size, origin }: { view: View; size: Vec2; origin: Vec2 }) {
  const looking = useAppSelector((s) => s.view.looking)
  const { project, scheme } = useProject()
  const rule = looking && scheme.rules[looking.rule]
  if (!looking || !rule) return null
  const step = rule.steps.find((s) => s.id === looking.step)
  const traced = ruleRun(project, scheme, rule).trace.find((t) => t.step === looking.step)
  if (!traced || !step) return null
  const numbers = numbersOf(project, scheme)
  const frame = {
    x: numbers.length(rule.place.x) - origin[0],
    y: numbers.length(rule.place.y) - origin[1],
    z: 0,
    turn: numbers.angle(rule.place.turn),
  }
  const base = numbers.height(rule.base.level) + numbers.length(rule.base.above)
  const shown = traced.cells.slice(0, 600).map((cell) => {
    const px = (p: Vec2) => toPane(view, size, [...placePoint(inRule(cell, p), frame), base + cell.up])
    const plan = planNow(cell, numbers)
    return {
      cell,
      d: plan.map((line) => pathOf(line, px)).join(''),
      at: px([0, 0]),
      side: sideOf(plan[0] ?? [], cell.sides[step.id], px),
    }
  })
  const gap = shown.length > 1 ? Math.hypot(...less((shown[0] as Drawn).at, (shown[1] as Drawn).at)) : Infinity
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden data-rule-marks={shown.length}>
      {shown.map(({ cell, d, at, side }) => {
        const lit = looking.key === cell.key
        const chosen = step.step !== 'choose' || cell.chosen.includes(step.id)
        return (
          <g key={cell.key}>
            <path
              d={d}
              fill={lit ? 'var(--cut)' : chosen ? 'var(--cutsoft)' : 'none'}
              fillOpacity={lit ? 0.4 : 0.28}
              stroke="var(--cut)"
              strokeWidth={lit ? 2.4 : 1.2}
              strokeDasharray={chosen ? undefined : '3 3'}
              strokeLinejoin="round"
            />
            {side && <path d={side} fill="none" stroke="var(--ink)" strokeWidth={3.4} strokeLinecap="round" />}
            {(lit || gap > ROOM) && (
              <text
                x={at[0]}
                y={at[1] + 4}
                textAnchor="middle"
                fontSize={lit ? 13 : 11}
                fontWeight={lit ? 700 : 500}
                fill="var(--cuttext)"
                style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}
              >
                {cell.key}
              </text>
            )}
          </g>
        )
      })}
    </svg>
  )
}

interface Drawn {
  at: Vec2
}
const less = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]]

/** The points of a side, its arc in facets; the last one is the next side's first. */
function sidePoints(line: readonly PlanCorner[], i: number): Vec2[] {
  const [a, b] = [line[i] as PlanCorner, line[(i + 1) % line.length] as PlanCorner]
  const arc = arcBetween(a.at, b.at, a.bulge)
  return arc ? arcPoints({ ...arc, n: Math.min(arc.n, 24) }).slice(0, -1) : [a.at]
}

const pathOf = (line: readonly PlanCorner[], px: (p: Vec2) => Vec2): string =>
  `${line
    .flatMap((_, i) => sidePoints(line, i))
    .map(px)
    .map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`)
    .join('')}Z`

function sideOf(line: readonly PlanCorner[], id: string | undefined, px: (p: Vec2) => Vec2): string | null {
  const i = line.findIndex((c) => c.id === id)
  if (id === undefined || i < 0) return null
  return [...sidePoints(line, i), (line[(i + 1) % line.length] as PlanCorner).at]
    .map(px)
    .map(([x, y], k) => `${k ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`)
    .join('')
}
