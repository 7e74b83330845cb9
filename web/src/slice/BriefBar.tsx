import { showFigure, type BriefFigure } from '@geotome/core/study'
import { useProject } from '../app/hooks'

/** How a line stands, in a word. */
export const stateOf = ({ state }: BriefFigure): string => (state === 'unknown' ? 'not known' : state)

/** The figure now on a rule: what meets the line is a band with its target in it; the difference is said in words. */
export function BriefBar({
  figure: { line, now, target, least, most, state, by },
  past,
}: {
  figure: BriefFigure
  /** the figure at another moment, where one is chosen */ past: number | null
}) {
  const { project } = useProject()
  if (now === null)
    return (
      <p className="pt-1 text-warn">not known: say how thick outer walls are taken to be, or give the site an area</p>
    )
  const end = Math.max(now, most ?? 0, target) * 1.15 || 1
  const x = (v: number) => `${(100 * Math.max(0, v)) / end}%`
  const value = (v: number) => showFigure(project, line.of, v)
  const [from, to] = [least ?? 0, most ?? end]
  return (
    <div className="flex items-center gap-3">
      <svg className="h-[22px] min-w-16 flex-1" aria-hidden>
        <line x1={0} x2="100%" y1={17} y2={17} stroke="var(--line)" />
        <rect x={x(from)} width={x(to - from)} y={3} height={14} fill="var(--field)" />
        <rect x={0} width={x(now)} y={7} height={7} fill={state === 'met' ? 'var(--ink)' : 'var(--warn)'} />
        <line x1={x(target)} x2={x(target)} y1={1} y2={20} stroke="var(--ink)" strokeWidth={1.6} />
      </svg>
      <span className="w-32 shrink-0 text-right leading-4">
        <b className="tabular-nums" data-now>
          {value(now)}
        </b>
        <span className={`block text-[11px] ${state === 'met' ? 'text-ink2' : 'text-warn'}`} data-said>
          {state === 'met' ? 'met' : `${value(Math.abs(by))} ${state === 'short' ? 'short' : 'over'}`}
        </span>
        {past !== null && (
          <span className="block text-[11px] text-ink2" data-since>
            {Math.abs(now - past) < 0.005 ? 'as then' : `${now > past ? '+' : ''}${value(now - past)} since`}
          </span>
        )}
      </span>
    </div>
  )
}
