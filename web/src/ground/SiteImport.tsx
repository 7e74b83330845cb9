import { useRef, useState } from 'react'
import { batch, type SingleEdit } from '@geotome/core/edits'
import type { Answers } from '@geotome/core/exchange'
import { Refusal, showQuantity, siteFigures } from '@geotome/core/project'
import { api, Problem } from '../app/api'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { accepts, useExchange } from '../common/use-exchange'
import { Dialog } from '../common/Dialog'
import { FileAsks } from '../common/FileAsks'
import { readInWorker } from '../worker/reader'
import type { SiteFound } from '../worker/reader-worker'
import { neighbourEdit, siteEdit } from '@geotome/core/groundwork'
import { tellFault } from '../common/tell'

/** Reads a site file in the worker and asks what its outlines, points and lines become; all of it is one edit. */
export function SiteImport({ onClose }: { onClose: () => void }) {
  const { project } = useProject()
  const list = useExchange()
  const file = useRef<HTMLInputElement>(null)
  const [busy, setBusy] = useState(false)
  const [fault, setFault] = useState<{ text: string; again: File | null } | null>(null)
  const [found, setFound] = useState<
    (SiteFound & { name: string; file: File; answers: Answers; leaveOut: boolean }) | null
  >(null)
  const [site, setSite] = useState<number | null>(null)
  const [around, setAround] = useState(true)
  const [ground, setGround] = useState(true)
  const read = async (chosen: File, leaveOut = false, answers: Answers = {}) => {
    setBusy(true)
    setFault(null)
    const answer = await readInWorker(chosen, (reader, bytes) =>
      reader.site(chosen.name, bytes, project.location, { leaveOut, answers }),
    ).catch((e: unknown) => {
      if (!(e instanceof Refusal)) throw e
      setFault({ text: e.message, again: /not numbers/.test(e.message) ? chosen : null })
      return null
    })
    setBusy(false)
    if (!answer) return
    setFound({ name: chosen.name, file: chosen, answers, leaveOut, ...answer })
    // The largest outline without a height is the likeliest boundary.
    const outlines = answer.placed.read.outlines
      .map((o, i) => ({ i, area: siteFigures(o.points).area, height: o.height }))
      .filter((o) => o.height === null)
      .sort((a, b) => b.area - a.area)
    setSite(!project.site ? (outlines[0]?.i ?? null) : null)
  }
  const { outlines = [], points = [], lines = [], remarks = [] } = found?.placed.read ?? {}
  const accept = async () => {
    if (!found) {
      file.current?.click()
      return
    }
    const edits: SingleEdit[] = []
    if (JSON.stringify(found.placed.location) !== JSON.stringify(project.location))
      edits.push({ edit: 'project.change', set: { location: found.placed.location } })
    const boundary = site === null ? undefined : outlines[site]
    if (boundary) edits.push(siteEdit(project, () => crypto.randomUUID(), boundary.points) as SingleEdit)
    if (around)
      outlines.forEach((o, i) => {
        if (i !== site)
          edits.push(
            neighbourEdit(
              project,
              crypto.randomUUID(),
              o.points,
              o.height ?? 6,
              o.name ? `${o.name} ${i + 1}` : `Neighbour ${Object.keys(project.neighbours).length + i + 1}`,
              o.base,
            ) as SingleEdit,
          )
      })
    if (ground && found.survey) {
      try {
        const { hash } = await api.putAsset(found.survey)
        edits.push({
          edit: 'project.change',
          set: {
            terrain: {
              kind: 'survey',
              asset: hash,
              name: found.name.slice(0, 120),
              points: points.length + lines.reduce((n, l) => n + l.length, 0),
              lines: lines.length,
            },
          },
        })
      } catch (e) {
        if (e instanceof Problem) {
          tellFault(e.message)
          return
        }
        throw e
      }
    }
    if (edits.length === 0) {
      tellFault('Nothing of the file is taken. Choose what its outlines or points become.')
      return
    }
    if (makeEdit(`read ${found.name}`.slice(0, 190), () => batch(edits))) onClose()
  }
  return (
    <Dialog
      title="Read a site, ground or neighbours"
      onClose={onClose}
      onAccept={() => void accept()}
      accept={busy ? 'Reading ...' : found ? 'Take it' : 'Choose a file'}
    >
      <input
        ref={file}
        type="file"
        aria-label="Site file"
        accept={accepts(list?.sites ?? [])}
        className="sr-only"
        onChange={(e) => {
          const f = e.target.files?.[0]
          if (f) void read(f)
        }}
      />
      {!found && !fault && (
        <p className="text-ink2">
          Points and breaklines (CSV, LandXML, DXF, GeoJSON, ASCII grid, GeoTIFF), boundaries and outlines of neighbours
          with heights (GeoJSON, DXF). Map coordinates become the project's.
        </p>
      )}
      {fault && (
        <div role="alert">
          <p className="text-error">{fault.text}</p>
          {fault.again && (
            <button type="button" className="btn btn-sm mt-2" onClick={() => void read(fault.again as File, true)}>
              Read it without these rows
            </button>
          )}
        </div>
      )}
      {found && (
        <div className="flex flex-col gap-2">
          <p data-found>
            <b>{found.name}</b>: {sayCounts({ point: points.length, line: lines.length, outline: outlines.length })}
          </p>
          {found.placed.read.asks.length > 0 && (
            <FileAsks
              asks={found.placed.read.asks}
              answers={found.answers}
              answer={(next) => void read(found.file, found.leaveOut, next)}
            />
          )}
          {outlines.length > 0 && (
            <label className="flex items-center justify-between text-ink2">
              boundary of the site
              <select
                aria-label="boundary of the site"
                className="select select-sm w-48 font-semibold"
                value={site ?? ''}
                onChange={(e) => setSite(e.target.value === '' ? null : Number(e.target.value))}
              >
                <option value="">none of them</option>
                {outlines.map((o, i) => (
                  <option key={i} value={i}>
                    {o.name ?? `outline ${i + 1}`}, {showQuantity(siteFigures(o.points).area, 'area', project)}
                  </option>
                ))}
              </select>
            </label>
          )}
          {outlines.length > (site === null ? 0 : 1) && (
            <label className="flex cursor-pointer items-center justify-between text-ink2">
              the other outlines are neighbours
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={around}
                onChange={(e) => setAround(e.target.checked)}
              />
            </label>
          )}
          {found.survey && (
            <label className="flex cursor-pointer items-center justify-between text-ink2">
              points and lines are the ground
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={ground}
                onChange={(e) => setGround(e.target.checked)}
              />
            </label>
          )}
          {found.placed.location.zero && !project.location.zero && (
            <p className="text-[12px] text-ink2">
              The project's zero will lie at {found.placed.location.zero.slice(0, 2).join(', ')} of the map.
            </p>
          )}
          {[...new Set(remarks)].map((r) => (
            <p key={r} className="text-[12px] text-warn">
              {r}
            </p>
          ))}
        </div>
      )}
    </Dialog>
  )
}

/** 3 points, 1 line; what there is none of is not said. */
const sayCounts = (counts: Record<string, number>): string =>
  Object.entries(counts)
    .filter(([, n]) => n > 0)
    .map(([what, n]) => `${n.toLocaleString('en')} ${what}${n === 1 ? '' : 's'}`)
    .join(', ')
