import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { showQuantity, type Dial } from '@geotome/core/project'
import type { Trial } from '@geotome/core/study'
import { useProject } from '../app/hooks'

/** A figure over the first dial; with two, a line for each value of the second. */
export default function TrialsChart({
  trials,
  dials,
  figure,
  label,
}: {
  trials: Trial[]
  dials: Dial[]
  figure: keyof NonNullable<Trial['figures']>
  label: string
}) {
  const { project } = useProject()
  const [first, second] = dials
  const others = second ? [...new Set(trials.map((t) => t.values[1] ?? 0))] : [0]
  const data = [...new Set(trials.map((t) => t.values[0] ?? 0))].map((x) => ({
    x,
    ...Object.fromEntries(
      others.map((o, i) => [
        `y${i}`,
        trials.find((t) => t.values[0] === x && (!second || t.values[1] === o))?.figures?.[figure] ?? null,
      ]),
    ),
  }))
  const ink = { fontSize: 11, fill: 'var(--ink2)' }
  const short = (value: number) =>
    Math.abs(value) >= 1000 ? `${Math.round(value).toLocaleString('en')}` : String(Math.round(value * 1000) / 1000)
  return (
    <figure aria-label={`${label} over ${first?.name ?? ''}`} className="h-full">
      <ResponsiveContainer width="100%" height="100%">
        <LineChart data={data} margin={{ top: 8, right: 12, bottom: 4, left: 8 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            dataKey="x"
            type="number"
            domain={['dataMin', 'dataMax']}
            tick={ink}
            stroke="var(--ink3)"
            tickFormatter={(v: number) => (first ? showQuantity(v, first.quantity, project) : String(v))}
          />
          <YAxis tick={ink} stroke="var(--ink3)" width={64} domain={['auto', 'auto']} tickFormatter={short} />
          <Tooltip
            isAnimationActive={false}
            contentStyle={{ background: 'var(--panel)', border: '1px solid var(--line)', fontSize: 12 }}
            labelFormatter={(v) => (first ? `${first.name} ${showQuantity(Number(v), first.quantity, project)}` : '')}
            formatter={(value, name) => {
              const i = Number(String(name).slice(1))
              return [
                short(Number(value)),
                second ? `${second.name} ${showQuantity(others[i] ?? 0, second.quantity, project)}` : label,
              ]
            }}
          />
          {others.map((o, i) => (
            <Line
              key={o}
              dataKey={`y${i}`}
              stroke="var(--cut)"
              strokeOpacity={second ? 0.35 + (0.65 * i) / Math.max(1, others.length - 1) : 1}
              strokeWidth={1.6}
              dot={{ r: 2.2, fill: 'var(--cut)', strokeWidth: 0 }}
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </figure>
  )
}
