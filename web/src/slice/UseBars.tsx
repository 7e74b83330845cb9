import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { areaSign, showNumber, type Use } from '@geotome/core/project'
import { useProject, useUses } from '../app/hooks'
import { UsePatterns } from '../common/use-marks'

/** Lying bars of areas (m2 by use id), parted by use, each with its colour and pattern; `name` is what stands beside a bar. */
export function UseBars({
  rows,
  uses,
  wide,
  gap,
}: {
  rows: readonly { name: string; areas: Record<string, number> }[]
  uses: readonly Use[]
  /** px for the names */ wide: number
  gap?: number
}) {
  const { project } = useProject()
  const all = useUses()
  const ink = { fontSize: 11, fill: 'var(--ink2)' }
  return (
    <>
      <svg width={0} height={0} className="absolute" aria-hidden>
        <UsePatterns uses={all} />
      </svg>
      <ResponsiveContainer width="100%" height="100%">
        <BarChart
          data={rows.map(({ name, areas }) => ({ name, ...areas }))}
          layout="vertical"
          margin={{ top: 2, right: 12, bottom: 0, left: 4 }}
          {...(gap === undefined ? {} : { barCategoryGap: gap })}
        >
          <XAxis
            type="number"
            tick={ink}
            stroke="var(--ink3)"
            tickFormatter={(v: number) => showNumber(v, 'area', project, 0)}
          />
          <YAxis
            type="category"
            dataKey="name"
            tick={ink}
            stroke="var(--ink3)"
            width={wide}
            interval="preserveStartEnd"
          />
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
    </>
  )
}
