import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { areaSign, showNumber } from '@geotome/core/project'
import type { SchemeSummary } from '@geotome/core/study'
import { useProject, useUses } from '../app/hooks'
import { UsePatterns } from '../spine/UsePatterns'

/** The areas of all schemes by use; the cards above say the same in figures. */
export default function SchemesChart({ schemes }: { schemes: readonly SchemeSummary[] }) {
  const { project } = useProject()
  const all = useUses()
  const uses = all.filter((u) => schemes.some((s) => (s.uses[u.id] ?? 0) > 0.005))
  const ink = { fontSize: 12, fill: 'var(--ink2)' }
  return (
    <figure aria-label="areas of the schemes by use" style={{ height: 46 * schemes.length + 40 }}>
      <svg width={0} height={0} aria-hidden>
        <UsePatterns uses={all} />
      </svg>
      <ResponsiveContainer width="100%" height="100%">
        <BarChart
          data={schemes.map((s) => ({ name: s.name, ...s.uses }))}
          layout="vertical"
          margin={{ left: 8, right: 16 }}
        >
          <XAxis
            type="number"
            tick={ink}
            stroke="var(--ink3)"
            tickFormatter={(v: number) => showNumber(v, 'area', project, 0)}
          />
          <YAxis type="category" dataKey="name" tick={ink} stroke="var(--ink3)" width={120} />
          <Tooltip
            isAnimationActive={false}
            cursor={{ fill: 'var(--field)' }}
            contentStyle={{ background: 'var(--panel)', border: '1px solid var(--line)', fontSize: 12 }}
            formatter={(value, name) => [
              `${showNumber(Number(value), 'area', project)} ${areaSign(project)}`,
              project.uses[String(name)]?.name ?? '',
            ]}
          />
          {uses.map((u) => (
            <Bar
              key={u.id}
              dataKey={u.id}
              stackId="uses"
              fill={`url(#use-${u.id})`}
              stroke="var(--ink)"
              strokeWidth={0.7}
              isAnimationActive={false}
            />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </figure>
  )
}
