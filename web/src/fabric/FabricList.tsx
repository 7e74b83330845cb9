import { areaSign, heightsOf, numbersOf, showNumber } from '@geotome/core/project'
import { letGo } from '@geotome/core/fabric'
import { useProject, useStudy, useUnit } from '../app/hooks'
import { makeEdit } from '../app/session'
import { makeComputedEdit } from '../app/study-loop'
import { useAppDispatch } from '../app/store'
import { picked } from '../app/view-slice'
import { Section } from '../common/fields'
import { studyWorker } from '../worker/client'
import type { PartView } from '../worker/protocol'
import { BuildUps } from './BuildUps'
import { ROLES } from './roles'
import { useState } from 'react'

/** All parts: first those that are off their faces, with what can be done about some or all of them; then by role; and the build-ups. */
export function FabricList() {
  const unit = useUnit()
  const dispatch = useAppDispatch()
  const study = useStudy()
  if (!study) return null
  return (
    <>
      <OffTheirFaces parts={study.parts.filter((p) => p.bond.status !== 'bonded' && !p.bond.left)} />
      <LeftAsTheyAre parts={study.parts.filter((p) => p.bond.left)} />
      <Section title="Parts">
        {study.parts.length === 0 && (
          <p className="rounded-md border border-line bg-field p-3 text-ink2">
            No walls yet. Take <b className="text-ink">Make building</b> below the stage: it shows what each face would
            become before it makes anything.
          </p>
        )}
        {ROLES.map((role) => {
          const all = study.parts.filter((p) => p.role === role)
          return all.length === 0 ? null : (
            <details key={role} className="border-b border-line py-1.5">
              <summary className="flex cursor-pointer justify-between">
                <span>
                  {role} <span className="text-ink2">{all.length}</span>
                </span>
                <span className="font-semibold">
                  {showNumber(
                    all.reduce((s, p) => s + p.area, 0),
                    'area',
                    unit,
                  )}{' '}
                  {areaSign(unit)}
                </span>
              </summary>
              <ul className="mt-1">
                {all.map((p) => (
                  <li key={p.id}>
                    <button
                      className="flex w-full cursor-pointer justify-between gap-2 rounded px-1 py-0.5 text-left text-[12px] hover:bg-field"
                      onClick={() => dispatch(picked({ kind: 'part', ids: [p.id] }))}
                    >
                      <span className="truncate">{p.name}</span>
                      <span className="shrink-0 text-ink2">{showNumber(p.area, 'area', unit)}</span>
                    </button>
                  </li>
                ))}
              </ul>
            </details>
          )
        })}
      </Section>
      <BuildUps />
    </>
  )
}

function OffTheirFaces({ parts }: { parts: PartView[] }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const [marked, setMarked] = useState<string[]>([])
  if (parts.length === 0) return null
  const some = parts.filter((p) => marked.includes(p.id))
  const meant = some.length ? some : parts
  const drifted = meant.filter((p) => p.bond.status === 'drifted')
  const loose = meant.filter((p) => p.bond.status === 'loose')
  const toggle = (id: string) => setMarked((m) => (m.includes(id) ? m.filter((o) => o !== id) : [...m, id]))
  const done = (made: boolean) => {
    if (made) setMarked([])
  }
  return (
    <Section
      title={`Drifted and loose, ${parts.length}`}
      aside={
        some.length > 0 && (
          <button className="cursor-pointer text-[11px] text-ink2 underline" onClick={() => setMarked([])}>
            {some.length} marked: all
          </button>
        )
      }
    >
      {drifted.length > 0 && (
        <button
          className="btn btn-sm btn-primary mb-2 w-full"
          onClick={() =>
            void makeComputedEdit(`bring ${drifted.length} parts in line`, () =>
              studyWorker.bringInLine(scheme.id, some.length ? drifted.map((p) => p.id) : null),
            ).then(done)
          }
        >
          Bring {drifted.length} in line
        </button>
      )}
      <div className="mb-2 flex gap-1.5">
        <button
          className="btn btn-sm h-7 flex-1 text-[12px]"
          title="They stay as they are, and ask for nothing until their faces change again"
          onClick={() =>
            void makeComputedEdit(`keep ${meant.length} parts as they are`, () =>
              studyWorker.keepAsIs(
                scheme.id,
                meant.map((p) => p.id),
              ),
            ).then(done)
          }
        >
          Keep {meant.length}
        </button>
        <button
          className="btn btn-sm h-7 flex-1 text-[12px]"
          title="They stay where they are, whatever becomes of the form"
          onClick={() =>
            done(
              makeEdit(`let ${meant.length} parts go`, () =>
                letGo(
                  { scheme, heights: heightsOf(scheme, numbersOf(project, scheme)) },
                  meant.map((p) => p.id),
                ),
              ),
            )
          }
        >
          Let {meant.length} go
        </button>
        {loose.length > 0 && (
          <button
            className="btn btn-sm h-7 flex-1 text-[12px]"
            onClick={() =>
              done(
                makeEdit(`remove ${loose.length} loose parts`, {
                  edit: 'batch',
                  edits: loose.map((p) => ({ edit: 'part.remove' as const, scheme: scheme.id, id: p.id })),
                }),
              )
            }
          >
            Remove {loose.length} loose
          </button>
        )}
      </div>
      <ul>
        {parts.map((p) => (
          <li key={p.id} data-drifted className="flex items-start gap-2 border-b border-line py-1.5">
            <input
              type="checkbox"
              className="checkbox checkbox-xs mt-0.5"
              aria-label={`mark ${p.name}`}
              checked={marked.includes(p.id)}
              onChange={() => toggle(p.id)}
            />
            <button
              className="min-w-0 flex-1 cursor-pointer text-left hover:bg-field"
              onClick={() => dispatch(picked({ kind: 'part', ids: [p.id] }))}
            >
              <span className="block font-medium">{p.name}</span>
              <span className="text-[12px] text-warn">
                {p.bond.status}: {p.bond.why}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Section>
  )
}

function LeftAsTheyAre({ parts }: { parts: PartView[] }) {
  const dispatch = useAppDispatch()
  if (parts.length === 0) return null
  return (
    <details className="mb-4">
      <summary className="cursor-pointer text-[12px] text-ink2">{parts.length} kept as they are or let go</summary>
      <ul className="mt-1">
        {parts.map((p) => (
          <li key={p.id}>
            <button
              className="w-full cursor-pointer rounded px-1 py-0.5 text-left text-[12px] hover:bg-field"
              onClick={() => dispatch(picked({ kind: 'part', ids: [p.id] }))}
            >
              {p.name}
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
