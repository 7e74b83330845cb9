import { computeAgain, stopComputing } from '../app/study-loop'
import { areaSign, showNumber, showQuantity, showVolume } from '@geotome/core/project'
import { firstScheme, permittedHeight, type RatioBy } from '@geotome/core/study'
import { useProject, useStudy, useUnit } from '../app/hooks'
import { selectReached } from '../app/project-slice'
import { useAppDispatch, useAppSelector } from '../app/store'
import { sheetOpened } from '../app/view-slice'
import type { StoredView } from '../stage/geometry-store'
import { inUnits } from '../common/tell'

/** m above the datum; by one after the other, as a large project has more parts than a call takes arguments */
const highest = (things: { top: number }[], least: number) => things.reduce((most, t) => Math.max(most, t.top), least)

/** Before the first study is here: the total that the server has of the project as it was opened. */
function FirstFigures({ refused }: { refused: string | null }) {
  const { project, scheme } = useProject()
  const { total, log, pending } = useAppSelector((s) => s.project)
  const isOfThis = log.length === 0 && pending.length === 0 && firstScheme(project).id === scheme.id
  if (refused || total === null || !isOfThis)
    return <span className="text-ink2">{refused ?? 'Computing the first figures ...'}</span>
  return (
    <>
      <span className="text-ink2">total</span>
      <b className="text-[14px]" data-figure="total-of-server">
        {showNumber(total, 'area', project)} {areaSign(project)}
      </b>
      <span className="text-ink2">computing the others ...</span>
    </>
  )
}

/** The figures that are steered by, at every desk; a figure opens to how it was computed. */
export function Figures() {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const before = useAppSelector((s) => (s.project.preview ? s.view.after : s.view.before))
  const sheet = useAppSelector((s) => s.view.sheet)
  const busy = useAppSelector((s) => s.view.computing)
  const stopped = useAppSelector((s) => s.view.stopped)
  const refused = useAppSelector((s) => s.view.refused)
  const shown = useAppSelector((s) => s.view.shown)
  const newest = useAppSelector(selectReached)
  const trying = useAppSelector((s) => s.project.preview !== null)
  const isTyped = useAppSelector((s) => s.project.preview !== null && s.view.typing)
  const { totals } = study?.ledger ?? {}
  const area = (v: number) => showNumber(v, 'area', project)
  const change = totals && before !== null ? totals.area - before : 0
  const top = highest(
    (study?.masses ?? []).filter((m) => !m.context && m.gives !== 'void'),
    0,
  )
  const limit = study ? (permittedHeight(study.ground.envelope, study.levels)?.height ?? null) : null
  const over = limit === null ? 0 : top - limit
  // Parapets and roofs may stand higher than the forms that they were made from.
  const built = highest(study?.parts ?? [], -Infinity)
  const drifted = study?.parts.filter((p) => p.bond.status !== 'bonded' && !p.bond.left).length ?? 0
  const open = study?.open ?? 0
  const hasDriftedWalls = study?.parts.some((p) => p.role.endsWith('wall') && p.bond.status === 'drifted') ?? false
  return (
    <footer
      className="flex h-[42px] shrink-0 items-center gap-4 max-[1100px]:gap-2.5 max-[1100px]:px-3 overflow-hidden border-t border-line bg-panel px-4 whitespace-nowrap"
      aria-label="Figures"
      data-study={shown.count}
      data-settled={trying || shown.edit === newest}
    >
      {totals ? (
        <>
          <button
            className="flex cursor-pointer items-baseline gap-1.5"
            title="Opens the ledger"
            aria-expanded={sheet === 'ledger'}
            onClick={() => dispatch(sheetOpened(sheet === 'ledger' ? null : 'ledger'))}
          >
            <span className="text-ink2">{isTyped ? 'total, as typed so far' : 'total'}</span>
            <b className={`text-[14px] ${isTyped ? 'text-ink2 italic' : ''}`} data-figure="total">
              {area(totals.area)} {areaSign(project)}
            </b>
            {Math.abs(change) > 0.005 && (
              <span
                className="font-semibold text-ink2"
                title="by the last edit, or by what is being dragged"
                data-figure="change"
              >
                {change > 0 ? '+' : ''}
                {area(change)}
              </span>
            )}
          </button>
          {(totals.net !== null || totals.netUnknown.length > 0) && (
            <Item
              label={hasDriftedWalls && totals.net !== null ? 'net of walls, some drifted' : 'net of walls'}
              name="net"
              title={
                totals.netUnknown.length
                  ? `No walls stand at ${totals.netUnknown.join(', ')}`
                  : hasDriftedWalls
                    ? 'Drifted walls are taken where they stand, off the form. Bring them in line first.'
                    : 'Floor less the walls that stand on it.'
              }
            >
              {totals.net === null ? (
                <span className="font-normal text-ink2">
                  not known
                  <span className="max-[1200px]:hidden">
                    {' '}
                    for {totals.netUnknown.length} {totals.netUnknown.length === 1 ? 'storey' : 'storeys'}
                  </span>
                </span>
              ) : (
                `${area(totals.net)} ${areaSign(project)}`
              )}
            </Item>
          )}
          {!study?.compare && (
            <Item label="volume" name="volume">
              {study?.pending ? '…' : showVolume(totals.volume, project)}
            </Item>
          )}
          <Item label="floor area ratio" name="ratio" title={sayRatios(totals.ratios)}>
            {totals.ratio === null ? (
              <span className="font-normal text-ink2">{totals.site === null ? 'no site area yet' : 'not known'}</span>
            ) : (
              totals.ratio.toFixed(2)
            )}
            {differs(totals.ratios) && (
              <span className="font-normal text-ink2">
                {' '}
                or {differs(totals.ratios)?.ratio?.toFixed(2)} by half a storey
              </span>
            )}
          </Item>
          <Item label="height" name="height">
            {showNumber(top, 'length', project)}
            {limit !== null && (
              <>
                {' '}
                <span className="font-normal text-ink2">of {showNumber(limit, 'length', project)}</span>
                {over > 0.005 && <span className="text-warn"> over {showNumber(over, 'length', project)}</span>}
              </>
            )}
            {built > top + 0.005 && (
              <span className="font-normal text-ink2">
                , built {showNumber(built, 'length', project)}
                {limit !== null && built - limit > 0.005 && (
                  <span className="font-semibold text-warn"> over {showNumber(built - limit, 'length', project)}</span>
                )}
              </span>
            )}
          </Item>
          {study && study.brief.length > 0 && <BriefFigures brief={study.brief} />}
          {totals.projecting && (
            <Item label="projecting, apart" name="projecting">
              {area(totals.projecting.area)}
            </Item>
          )}
          {totals.low > 0.005 && (
            <Item label="low, not counted" name="low">
              {area(totals.low)}
            </Item>
          )}
        </>
      ) : (
        <FirstFigures refused={refused && inUnits(refused)} />
      )}
      {study?.compare && <CompareFigures compare={study.compare} totals={study.ledger.totals} />}
      <span className="flex-1" />
      {refused && totals && (
        <span role="alert" className="truncate text-warn">
          {inUnits(refused)}
        </span>
      )}
      {busy !== null && !stopped && (
        <span className="flex items-center gap-2 text-ink2" role="status">
          computing {busy > 0 ? `${Math.round(busy * 100)} %` : '...'}
          <button className="btn btn-xs" onClick={stopComputing}>
            Stop
          </button>
        </span>
      )}
      {stopped && (
        <span className="flex items-center gap-2 text-warn" role="status">
          stopped: the figures are of before
          <button className="btn btn-xs" onClick={computeAgain}>
            Compute
          </button>
        </span>
      )}
      <button
        className={`sticky right-0 shrink-0 cursor-pointer bg-panel pl-2 font-semibold ${open ? 'text-warn' : 'text-ink2'}`}
        aria-expanded={sheet === 'findings'}
        data-figure="findings"
        onClick={() => dispatch(sheetOpened(sheet === 'findings' ? null : 'findings'))}
      >
        {study ? `${open} ${open === 1 ? 'finding' : 'findings'}${drifted ? `, ${drifted} drifted` : ''}` : ''}
      </button>
      <span className="sr-only">scheme {scheme.name}</span>
    </footer>
  )
}

/** What the ratio counts, and what it would be by the other rules. */
const sayRatios = (ratios: RatioBy[]): string =>
  ratios.map((r, i) => `${i ? '' : 'counts '}${r.say}: ${r.ratio?.toFixed(2) ?? 'not known'}`).join('; ')
/** The ratio by half of a storey above ground, where the project's own rule gives another one. */
function differs([own, ...others]: RatioBy[]): RatioBy | null {
  const half = others.find((r) => r.kind === 'half')
  return half?.ratio && own?.ratio && Math.abs(half.ratio - own.ratio) > 0.005 ? half : null
}

const Item = ({
  label,
  name,
  title,
  children,
}: {
  label: string
  name: string
  title?: string
  children: React.ReactNode
}) => (
  <span className="flex items-baseline gap-1.5" title={title}>
    <span className="text-ink2">{label}</span>
    <b className="text-[14px]" data-figure={name}>
      {children}
    </b>
  </span>
)

/** The other scheme's total beside this one's, on demand; opens the whole comparison. */
function CompareFigures({
  compare,
  totals,
}: {
  compare: NonNullable<StoredView['compare']>
  totals: StoredView['ledger']['totals']
}) {
  const dispatch = useAppDispatch()
  const project = useUnit()
  const by = totals.area - compare.ledger.totals.area
  return (
    <button
      className="flex cursor-pointer items-baseline gap-1.5"
      data-figure="compare"
      title="Opens the two side by side"
      onClick={() => dispatch(sheetOpened('compare'))}
    >
      <span className="text-ink2">{compare.name}</span>
      <b className="text-[14px]">{showQuantity(compare.ledger.totals.area, 'area', project)}</b>
      <span className="font-semibold text-ink2">
        {by >= 0 ? '+' : ''}
        {showNumber(by, 'area', project)} here
      </span>
    </button>
  )
}

/** How many lines of the brief are met; opens it. */
function BriefFigures({ brief }: { brief: StoredView['brief'] }) {
  const dispatch = useAppDispatch()
  const missed = brief.filter((b) => b.state !== 'met')
  return (
    <button
      className="flex cursor-pointer items-baseline gap-1.5"
      title={missed.length ? `Missed: ${missed.map((b) => b.line.name).join(', ')}` : 'All of it is met'}
      data-figure="brief"
      onClick={() => dispatch(sheetOpened('brief'))}
    >
      <span className="text-ink2">brief</span>
      <b className={`text-[14px] ${missed.length ? 'text-warn' : ''}`}>
        {brief.length - missed.length} of {brief.length}
      </b>
    </button>
  )
}
