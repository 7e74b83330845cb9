import { Trash2 } from 'lucide-react'
import { useState } from 'react'
import { exchange, exchanged, letGo, type Place } from '@geotome/core/fabric'
import { heightsOf, numbersOf, showQuantity, showVolume, type Part } from '@geotome/core/project'
import { useBuildUps, useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { makeComputedEdit } from '../app/study-loop'
import { useAppDispatch } from '../app/store'
import { picked } from '../app/view-slice'
import { orSay } from '../common/refused'
import { ChoiceField, Figure, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { studyWorker } from '../worker/client'
import type { PartView } from '../worker/protocol'

/** A picked part: its build-up, side, figures, and its bond to the face it stands on. */
export function PartDetails({ part }: { part: Part }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const shown = study?.parts.find((p) => p.id === part.id)
  const set = (label: string, fields: Partial<Part>) =>
    makeEdit(`${label} of ${part.name}`, { edit: 'part.change', scheme: scheme.id, id: part.id, set: fields })
  const stands = study?.levels.find((l) => l.id === part.base?.level)?.name
  return (
    <>
      <p className="eyebrow mb-2">{shown?.role ?? part.kind}</p>
      <NameField label="name" value={part.name} onAccept={(name) => set('name', { name })} />
      <BuildUpOf part={part} />
      {part.kind !== 'slab' && part.kind !== 'parapet' && (
        <ChoiceField
          label="lies"
          value={part.side}
          options={[
            { value: 'inside', label: 'inside the face' },
            { value: 'outside', label: 'outside the face' },
          ]}
          onChange={(side) => set('side', { side })}
        />
      )}
      {part.kind === 'parapet' && (
        <NumField label="height" value={part.rise} onAccept={(rise) => set('height', { rise })} />
      )}
      {part.kind === 'roof' && (
        <NumField label="overhang" value={part.overhang} onAccept={(overhang) => set('overhang', { overhang })} />
      )}
      {part.kind === 'roof' && shown && <Eaves part={part} eaves={shown.eaves} set={set} />}
      {shown && <BondOf part={part} shown={shown} />}
      {shown && (
        <Section title="Figures">
          <Figure label={part.kind === 'slab' ? 'area' : 'area of face'}>
            {showQuantity(shown.area, 'area', project)}
          </Figure>
          <Figure label="thickness">{showQuantity(shown.thickness, 'length', project)}</Figure>
          <Figure label="volume">{showVolume(shown.volume, project)}</Figure>
          {shown.length !== null && <Figure label="length">{showQuantity(shown.length, 'length', project)}</Figure>}
          <Figure label="stands on">{stands ?? 'its face'}</Figure>
          {part.kind === 'wall' && (
            <Figure label="up to">
              {part.top
                ? `slab of ${study?.levels.find((l) => l.id === part.top?.level)?.name ?? ''}`
                : 'the top of its face'}
            </Figure>
          )}
        </Section>
      )}
      <button
        className="btn btn-sm w-full text-error"
        onClick={() => {
          if (makeEdit(`remove ${part.name}`, { edit: 'part.remove', scheme: scheme.id, id: part.id }))
            dispatch(picked({ kind: 'nothing' }))
        }}
      >
        <Trash2 size={14} /> Remove part
      </button>
    </>
  )
}

/** Exchanges the build-up for this part, for its kind on the storey, or for all of its kind; how many change is said first. */
function BuildUpOf({ part }: { part: Part }) {
  const { scheme } = useProject()
  const buildUps = useBuildUps(part.kind)
  const [reach, setReach] = useState<'one' | 'storey' | 'all'>('one')
  const [wanted, setWanted] = useState(part.buildUp)
  const named = buildUps.find((b) => b.id === wanted)
  const count = exchanged({ scheme }, part, reach).filter((p) => p.buildUp !== wanted).length
  const options = [
    { value: 'one' as const, label: 'this part' },
    ...(part.base ? [{ value: 'storey' as const, label: `all ${part.kind}s on this storey` }] : []),
    { value: 'all' as const, label: `all ${part.kind}s of the scheme` },
  ]
  return (
    <div className="mb-3">
      <ChoiceField
        label="build-up"
        value={wanted}
        options={buildUps.map((b) => ({ value: b.id, label: b.name }))}
        onChange={(id) => {
          setWanted(id)
          const to = buildUps.find((b) => b.id === id)
          if (reach === 'one' && to && id !== part.buildUp)
            makeEdit(`build-up of ${part.name}`, () => exchange({ scheme }, part, to, 'one').edit)
        }}
      />
      <ChoiceField label="exchange for" value={reach} options={options} onChange={setReach} />
      {reach !== 'one' && named && (
        <button
          className="btn btn-sm w-full"
          disabled={count === 0}
          onClick={() =>
            makeEdit(`${named.name} for ${count} ${part.kind}s`, () => exchange({ scheme }, part, named, reach).edit)
          }
        >
          {count === 0
            ? `All are ${named.name}`
            : `Exchange ${count} ${count === 1 ? part.kind : `${part.kind}s`} for ${named.name}`}
        </button>
      )}
    </div>
  )
}

/** The overhang edge by edge, where it is to differ. */
function Eaves({
  part,
  eaves,
  set,
}: {
  part: Part
  eaves: PartView['eaves']
  set: (label: string, fields: Partial<Part>) => boolean
}) {
  if (eaves.length === 0) return null
  return (
    <details className="mb-3 rounded-md border border-line px-2.5 py-1.5">
      <summary className="cursor-pointer text-ink2">overhang by edge</summary>
      <div className="mt-1.5">
        {eaves.map((e) => (
          <NumField
            key={e.face}
            label={`over ${e.label}`}
            value={part.overhangs[e.face] ?? part.overhang}
            onAccept={(num) => set('overhang', { overhangs: { ...part.overhangs, [e.face]: num } })}
          />
        ))}
        {Object.keys(part.overhangs).length > 0 && (
          <button
            className="cursor-pointer text-[12px] text-ink2 underline"
            onClick={() => set('overhang', { overhangs: {} })}
          >
            All alike again
          </button>
        )}
      </div>
    </details>
  )
}

function BondOf({ part, shown }: { part: Part; shown: PartView }) {
  const { project, scheme } = useProject()
  const { status, why, left } = shown.bond
  const [places, setPlaces] = useState<Place[] | null>(null)
  const find = async () => {
    const found = await orSay(studyWorker.places(scheme.id, part.id))
    if (found) setPlaces(found)
  }
  const free = () =>
    makeEdit(`let ${part.name} go`, () =>
      letGo({ scheme, heights: heightsOf(scheme, numbersOf(project, scheme)) }, [part.id]),
    )
  return (
    <Section title="Bond">
      <p className={`mb-2 ${status === 'bonded' || left ? 'text-ink2' : 'font-medium text-warn'}`} data-bond={status}>
        {status === 'bonded'
          ? 'In line with its face.'
          : `${status === 'drifted' ? 'Drifted' : 'Loose'}: ${why}${left && !part.letGo ? '; kept as it is' : ''}.`}
      </p>
      {status === 'drifted' && (
        <button
          className="btn btn-sm btn-primary mb-1.5 w-full"
          onClick={() =>
            void makeComputedEdit(`bring ${part.name} in line`, () => studyWorker.bringInLine(scheme.id, [part.id]))
          }
        >
          Bring in line
        </button>
      )}
      <div className="flex flex-wrap gap-x-4 gap-y-1 text-[12px] text-ink2">
        {status !== 'bonded' && !left && (
          <button
            className="cursor-pointer underline"
            onClick={() =>
              void makeComputedEdit(`keep ${part.name} as it is`, () => studyWorker.keepAsIs(scheme.id, [part.id]))
            }
          >
            Keep as it is
          </button>
        )}
        {!part.letGo && (
          <button className="cursor-pointer underline" onClick={free}>
            Let it go
          </button>
        )}
        {status !== 'bonded' && (
          <button className="cursor-pointer underline" onClick={() => void find()}>
            Attach to another face
          </button>
        )}
      </div>
      {places &&
        (places.length === 0 ? (
          <p className="mt-1.5 text-[12px] text-ink2">No face of its kind reaches its storey.</p>
        ) : (
          <ul
            className="mt-1.5 rounded-md border border-line"
            aria-label="Faces it could stand on, the likeliest first"
          >
            {places.map((p) => (
              <li key={`${p.mass}${p.face}`}>
                <button
                  className="flex w-full cursor-pointer justify-between gap-2 px-2 py-1 text-left text-[12px] hover:bg-field"
                  onClick={() =>
                    void makeComputedEdit(`attach ${part.name}`, () =>
                      studyWorker.attach(scheme.id, part.id, { mass: p.mass, face: p.face }),
                    ).then((made) => {
                      if (made) setPlaces(null)
                    })
                  }
                >
                  <span className="truncate">{p.label}</span>
                  <span className="shrink-0 text-ink2">
                    {showQuantity(p.away, 'length', project)}
                    {p.turned > 0.05 ? `, ${p.turned.toFixed(1)}°` : ''}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        ))}
    </Section>
  )
}
