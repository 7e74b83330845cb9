import { useState, type ReactNode } from 'react'
import {
  areaSign,
  numbersOf,
  sayBearing,
  showNumber,
  showQuantity,
  siteRing,
  type Project,
  type SiteCorner,
} from '@geotome/core/project'
import { sideNames } from '@geotome/core/solid'
import { useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { picked, toolTaken } from '../app/view-slice'
import { Figure, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { FitFigures } from './FitFigures'
import { useSideLight } from './side-light'
import { SiteImport } from './SiteImport'
import { SiteEntry } from './SiteEntry'

/** The site: how it is entered; its area, sides and angles; setbacks, limits, and how every mass stands in the envelope. */
export function SiteDetails() {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const study = useStudy()
  const [entering, setEntering] = useState(false)
  const [reading, setReading] = useState(false)
  const { site } = project
  const change = (label: string, set: Partial<NonNullable<Project['site']>>) =>
    site !== null && makeEdit(label, { edit: 'project.change', set: { site: { ...site, ...set } } })
  const corner = (i: number, label: string, set: Partial<SiteCorner>) =>
    change(label, { corners: site?.corners.map((c, k) => (k === i ? { ...c, ...set } : c)) ?? [] })
  const figures = study?.ground.site
  const names = site ? sideNames(siteRing(site, numbersOf(project, null))) : []
  const { coverage, footprint } = study?.ledger.totals ?? {}
  if (!site || entering)
    return (
      <>
        {!site && (
          <div className="mb-4 rounded-md border border-line bg-field p-3 text-ink2">
            <p className="mb-2.5">No site yet. Draw its boundary in plan, type it below, or read it from a file.</p>
            <div className="flex gap-1.5">
              <button
                className="btn btn-sm btn-primary flex-1"
                onClick={() => dispatch(toolTaken({ tool: 'polygon', becomes: 'site' }))}
              >
                Draw it
              </button>
              <button className="btn btn-sm flex-1" onClick={() => setReading(true)}>
                Read a file
              </button>
            </div>
          </div>
        )}
        <SiteEntry onDone={() => setEntering(false)} cancel={site ? () => setEntering(false) : null} />
        {reading && <SiteImport onClose={() => setReading(false)} />}
      </>
    )
  return (
    <>
      <Section
        title="Site"
        aside={
          <button className="cursor-pointer text-[12px] text-ink2 underline" onClick={() => setEntering(true)}>
            enter anew
          </button>
        }
      >
        <p className="text-[30px] leading-9 font-bold tracking-tight" data-figure="site-area">
          {figures ? showNumber(figures.area, 'area', project) : ''}{' '}
          <span className="text-[15px] font-medium text-ink2">{areaSign(project)}</span>
        </p>
        <Figure label="boundary">{figures ? showQuantity(figures.perimeter, 'length', project) : ''}</Figure>
        <Figure label="left to build on">
          <span data-figure="buildable">
            {study?.ground.envelope ? showNumber(study.ground.envelope.area, 'area', project) : ''}
          </span>{' '}
          {areaSign(project)}
        </Figure>
        <Figure label="built on">
          {footprint === undefined ? '' : study?.pending ? '…' : showQuantity(footprint, 'area', project)}
          {coverage !== null && coverage !== undefined ? (
            <span data-figure="coverage">, {study?.pending ? '…' : (coverage * 100).toFixed(1)} %</span>
          ) : null}
        </Figure>
      </Section>
      <Section title="Limits">
        {site.limit === null ? (
          <button
            className="btn btn-sm mb-1.5 w-full"
            onClick={() =>
              change('height limit', {
                limit: Math.max(9, Math.ceil(Math.max(0, ...(study?.masses ?? []).map((m) => m.top)))),
              })
            }
          >
            Set a height limit
          </button>
        ) : (
          <div className="flex items-start gap-1">
            <div className="min-w-0 flex-1">
              <NumField
                label="height limit"
                value={site.limit}
                hint="Above the datum."
                onAccept={(limit) => change('height limit', { limit })}
              />
            </div>
            <button
              className="cursor-pointer px-1 pt-2 text-[12px] text-ink2 underline"
              onClick={() => change('no height limit', { limit: null })}
            >
              none
            </button>
          </div>
        )}
        <ul aria-label="Sides">
          {site.corners.map((c, i) => {
            const side = figures?.sides[i]
            return (
              <SideRow key={c.id} side={i}>
                <div className="mb-1 flex items-baseline justify-between text-[12px]">
                  <b>{names[i]}</b>
                  {side && (
                    <span className="text-ink2">
                      <b className="text-ink" data-side-length>
                        {showNumber(side.length, 'length', project)}
                      </b>{' '}
                      <span title="the way it runs, from its first corner: a bearing, clockwise from north">
                        running {sayBearing(side.bearing)}
                      </span>
                    </span>
                  )}
                </div>
                <NumField
                  label="setback"
                  compact
                  value={c.setback}
                  onAccept={(setback) => corner(i, `setback of the ${names[i]}`, { setback })}
                />
                <details className="text-[12px]">
                  <summary className="cursor-pointer text-ink2">
                    corner {i + 1}
                    {side ? `, ${side.angle.toFixed(2)}°` : ''}
                    {c.slope ? ', sloping limit' : ''}
                  </summary>
                  <div className="mt-1 grid grid-cols-2 gap-1.5">
                    <NumField
                      label="x"
                      name={`corner ${i + 1} x`}
                      compact
                      value={c.x}
                      onAccept={(x) => corner(i, `corner ${i + 1}`, { x })}
                    />
                    <NumField
                      label="y"
                      name={`corner ${i + 1} y`}
                      compact
                      value={c.y}
                      onAccept={(y) => corner(i, `corner ${i + 1}`, { y })}
                    />
                  </div>
                  {c.slope ? (
                    <div className="grid grid-cols-2 gap-1.5">
                      <NumField
                        label="rises from"
                        compact
                        value={c.slope.from}
                        onAccept={(from) =>
                          corner(i, `sloping limit of the ${names[i]}`, { slope: c.slope && { ...c.slope, from } })
                        }
                      />
                      <NumField
                        label="at"
                        compact
                        quantity="angle"
                        value={c.slope.angle}
                        onAccept={(angle) =>
                          corner(i, `sloping limit of the ${names[i]}`, { slope: c.slope && { ...c.slope, angle } })
                        }
                      />
                    </div>
                  ) : null}
                  <div className="flex gap-3 pt-0.5">
                    <button
                      className="cursor-pointer text-ink2 underline"
                      onClick={() =>
                        corner(i, c.slope ? 'no sloping limit' : 'sloping limit', {
                          slope: c.slope ? null : { from: 4, angle: 45 },
                        })
                      }
                    >
                      {c.slope ? 'no sloping limit' : 'sloping limit'}
                    </button>
                    {site.corners.length > 3 && (
                      <button
                        className="cursor-pointer text-ink2 underline"
                        onClick={() =>
                          change(`remove corner ${i + 1}`, { corners: site.corners.filter((_, k) => k !== i) })
                        }
                      >
                        remove corner
                      </button>
                    )}
                  </div>
                </details>
              </SideRow>
            )
          })}
        </ul>
      </Section>
      <Section title="Masses in the envelope">
        {(study?.masses ?? [])
          .filter((m) => !m.context)
          .map((m) => (
            <button
              key={m.id}
              className="mb-1.5 block w-full cursor-pointer rounded-md border border-line px-2.5 py-1.5 text-left hover:bg-field"
              onClick={() => dispatch(picked({ kind: 'mass', ids: [m.id] }))}
            >
              <b>{m.name}</b>
              <FitFigures mass={m.id} />
            </button>
          ))}
        {(study?.masses.length ?? 0) === 0 && (
          <p className="text-ink2">Draw a mass at the Form desk: it is measured here, live.</p>
        )}
      </Section>
      <button
        className="btn btn-sm w-full text-error"
        onClick={() => makeEdit('remove the site', { edit: 'project.change', set: { site: null } })}
      >
        Remove the site
      </button>
    </>
  )
}

/** A side of the site: it is lit up in the plan while its fields have the focus. */
const SideRow = ({ side, children }: { side: number; children: ReactNode }) => (
  <li data-side={side + 1} className="mb-1.5 rounded-md border border-line px-2 py-1.5" {...useSideLight(side)}>
    {children}
  </li>
)
