import { areaSign, showNumber, showVolume, showPerLength } from '@geotome/core/project'
import { WAYS, type Way } from '@geotome/core/study'
import { useProject, useStudy } from '../app/hooks'

/** Ways as a compass has them. */
const SHORT: Record<Way, string> = {
  north: 'N',
  'north-east': 'NE',
  east: 'E',
  'south-east': 'SE',
  south: 'S',
  'south-west': 'SW',
  west: 'W',
  'north-west': 'NW',
}

/** What the ledger tells of the scheme as a whole, in one line that wraps. */
export function LedgerTotals() {
  const { project } = useProject()
  const study = useStudy()
  if (!study) return null
  const { totals } = study.ledger
  const { areas } = study
  const area = (v: number) => `${showNumber(v, 'area', project)} ${areaSign(project)}`
  const terraces = areas?.terraces.reduce((sum, t) => sum + t.area, 0) ?? 0
  const below = areas?.surfaces ? WAYS.reduce((sum, w) => sum + (areas.surfaces?.below[w] ?? 0), 0) : 0
  const facades = areas?.surfaces ? WAYS.filter((w) => (areas.surfaces?.facades[w] ?? 0) > 0.5) : []
  return (
    <p className="flex shrink-0 flex-wrap gap-x-5 gap-y-0.5 border-t border-line px-3 py-2 text-[12.5px]">
      <Item label="volume" name="volume">
        {showVolume(totals.volume, project)}
      </Item>
      <Item label="footprint" name="footprint">
        {area(totals.footprint)}
      </Item>
      {totals.projecting && (
        <Item label={`${totals.projecting.count} projecting, apart`} name="projecting">
          {area(totals.projecting.area)}, {showVolume(totals.projecting.volume, project)}
        </Item>
      )}
      {totals.coverage !== null && (
        <Item label="site coverage" name="coverage">
          {(totals.coverage * 100).toFixed(1)} %
        </Item>
      )}
      <Item label="floor area ratio" name="ratio">
        {totals.ratio?.toFixed(3) ?? (totals.site === null ? 'no site area yet' : 'not known')}
        <span className="font-normal text-ink2"> {totals.ratios[0]?.say}</span>
      </Item>
      {terraces > 0.005 && (
        <Item label="terraces, apart" name="terraces">
          {area(terraces)}
        </Item>
      )}
      {areas?.voids.map((v) => (
        <Item key={v.mass} label={`void ${v.name}, ${v.levels.length} levels`} name={`void ${v.name}`}>
          {area(v.area)}
        </Item>
      ))}
      {areas?.surfaces && (
        <>
          <Item label="outer surface" name="outer">
            {area(areas.surfaces.outer)}
          </Item>
          <Item label="surface over volume" name="compact">
            {areas.surfaces.compact === null ? '' : showPerLength(areas.surfaces.compact, project)}
          </Item>
          <span className="whitespace-nowrap">
            <span className="text-ink2">facades, {areaSign(project)} </span>
            {facades.map((w) => (
              <span key={w} className="pr-2">
                <span className="text-ink2" title={`facades to the ${w}`}>
                  {SHORT[w]}{' '}
                </span>
                <b data-cell={`facade ${w}`}>{showNumber(areas.surfaces?.facades[w] ?? 0, 'area', project, 0)}</b>
              </span>
            ))}
          </span>
          {below > 0.5 && (
            <Item label="of them below ground" name="facades below ground">
              {area(below)}
            </Item>
          )}
        </>
      )}
    </p>
  )
}

const Item = ({ label, name, children }: { label: string; name: string; children: React.ReactNode }) => (
  <span className="whitespace-nowrap">
    <span className="text-ink2">{label} </span>
    <b data-cell={name}>{children}</b>
  </span>
)
