import { useEffect, useRef } from 'react'
import {
  areaSign,
  numbersOf,
  showNumber,
  showQuantity,
  showVolume,
  type BuildUp,
  type PartKind,
} from '@geotome/core/project'
import { buildUpThickness, type Choices } from '@geotome/core/fabric'
import { useBuildUps, useProject, useStudy } from '../app/hooks'
import { computeAgain, currentAsk, makeComputedEdit, stopComputing } from '../app/study-loop'
import { useAppDispatch, useAppSelector } from '../app/store'
import { picked, proposed } from '../app/view-slice'
import { ChoiceField, Figure, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { Unfold } from '../common/Unfold'
import { studyWorker } from '../worker/client'
import type { ProposalView } from '../worker/protocol'
import { Faces, LeftOut, useMassNames } from './OfferedFaces'
import { ROLES, manyOf } from './roles'

/** What each face would become, with counts and areas, and what is left out and why; nothing is made before it is accepted. */
export function BuildingPreview() {
  const dispatch = useAppDispatch()
  const { scheme } = useProject()
  const nameOf = useMassNames()
  const study = useStudy()
  const asked = useAppSelector((s) => s.view.proposing)
  const offer = study?.proposal
  const button = useRef<HTMLButtonElement>(null)
  const ready = asked !== null && Boolean(offer?.candidates.length)
  // Enter accepts what is offered, as soon as it is, unless something is being typed.
  useEffect(() => {
    if (ready && !document.activeElement?.matches('input, textarea, select'))
      button.current?.focus({ preventScroll: true })
  }, [ready])
  if (!asked) return null
  const change = (fields: Partial<Choices>) =>
    dispatch(proposed({ ...asked, choices: { ...asked.choices, ...fields } }))
  const accept = async () => {
    if (
      await makeComputedEdit(`make ${offer?.candidates.length ?? 0} parts`, () =>
        studyWorker.accept(currentAsk(scheme.id)),
      )
    ) {
      dispatch(proposed(null))
      dispatch(picked({ kind: 'nothing' }))
    }
  }
  return (
    <>
      <Section title="Building from faces">
        <p className="mb-2 text-ink2">
          {asked.masses ? `From ${asked.masses.map(nameOf).join(', ')}` : 'From all masses'}. Nothing is made until you
          accept.
        </p>
        <ChoiceFields choices={asked.choices} change={change} />
      </Section>
      {offer ? (
        <Offered offer={offer} />
      ) : (
        <Section title="It would make">
          <WorkingOut say="The faces are read." />
        </Section>
      )}
      {offer && <Faces offer={offer} choices={asked.choices} change={change} />}
      <LeftOut offer={offer ?? null} />
      <div className="sticky -bottom-3.5 -mx-4 -mb-3.5 flex gap-2 border-t border-line bg-panel px-4 py-3">
        <button className="btn btn-sm" onClick={() => dispatch(proposed(null))}>
          Cancel
        </button>
        <button
          ref={button}
          className="btn btn-sm btn-primary flex-1"
          disabled={!offer?.candidates.length}
          onClick={() => void accept()}
        >
          {offer ? `Make ${offer.candidates.length} parts` : 'Make building'}
        </button>
      </div>
    </>
  )
}

function ChoiceFields({ choices, change }: { choices: Choices; change: (fields: Partial<Choices>) => void }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const lists: Record<PartKind, BuildUp[]> = {
    wall: useBuildUps('wall'),
    slab: useBuildUps('slab'),
    roof: useBuildUps('roof'),
    terrace: useBuildUps('terrace'),
    parapet: useBuildUps('parapet'),
  }
  const options = (kind: PartKind) =>
    lists[kind].map((b) => ({ value: b.id, label: `${b.name} (${Math.round(buildUpThickness(b, numbers) * 1000)})` }))
  const none = { value: '', label: 'none: roofs instead' }
  return (
    <>
      <ChoiceField label="walls" value={choices.wall} options={options('wall')} onChange={(wall) => change({ wall })} />
      <ChoiceField
        label="walls lie"
        value={choices.wallSide}
        options={[
          { value: 'inside', label: 'inside the face' },
          { value: 'outside', label: 'outside the face' },
        ]}
        onChange={(wallSide) => change({ wallSide })}
      />
      <ChoiceField
        label="they reach"
        value={choices.reach}
        options={[
          { value: 'storey', label: 'storey by storey' },
          { value: 'through', label: 'through, base to top' },
        ]}
        onChange={(reach) => change({ reach })}
      />
      <ChoiceField
        label="bent faces as"
        value={choices.bent}
        options={[
          { value: 'upright walls', label: 'upright walls' },
          { value: 'facets', label: 'flat facets' },
        ]}
        onChange={(bent) => change({ bent })}
      />
      <ChoiceField label="slabs" value={choices.slab} options={options('slab')} onChange={(slab) => change({ slab })} />
      <ChoiceField label="roofs" value={choices.roof} options={options('roof')} onChange={(roof) => change({ roof })} />
      <ChoiceField
        label="roofs lie"
        value={choices.roofSide}
        options={[
          { value: 'outside', label: 'on the face' },
          { value: 'inside', label: 'under the face' },
        ]}
        onChange={(roofSide) => change({ roofSide })}
      />
      <NumField
        label="roof overhang"
        value={choices.overhang}
        onAccept={(num, overhang) => {
          if (overhang < 0) return false
          change({ overhang: num })
          return undefined
        }}
        hint="Measured level, square to eaves and verge."
      />
      <ChoiceField
        label="terraces"
        value={choices.terrace ?? ''}
        options={[...options('terrace'), none]}
        onChange={(id) => change({ terrace: id || null })}
      />
      {choices.terrace && (
        <ChoiceField
          label="parapets"
          value={choices.parapet ?? ''}
          options={[...options('parapet'), { value: '', label: 'none' }]}
          onChange={(id) => change({ parapet: id || null })}
        />
      )}
      {choices.terrace && choices.parapet && (
        <NumField
          label="parapet height"
          value={choices.rise}
          onAccept={(num, rise) => {
            if (rise <= 0) return false
            change({ rise: num })
            return undefined
          }}
        />
      )}
    </>
  )
}

/** How far the offer is, with a way to leave it off: of thousands of faces it takes seconds. */
function WorkingOut({ say }: { say: string }) {
  const share = useAppSelector((s) => s.view.computing)
  const isStopped = useAppSelector((s) => s.view.stopped)
  return (
    <>
      <div className="mt-2 flex items-center gap-3" data-working-out>
        <progress
          className="progress w-full"
          max={1}
          aria-label="how far it is worked out"
          {...(isStopped ? { value: 0 } : share ? { value: share } : {})}
        />
        <button className="btn btn-xs" onClick={() => (isStopped ? computeAgain() : stopComputing())}>
          {isStopped ? 'Begin again' : 'Stop'}
        </button>
      </div>
      <p className="mt-1.5 text-[12px] text-ink2">{isStopped ? 'Left off; nothing was made.' : say}</p>
    </>
  )
}

function Offered({ offer }: { offer: ProposalView }) {
  const { project } = useProject()
  const off = offer.candidates.reduce((most, c) => Math.max(most, c.off ?? 0), 0)
  return (
    <Section title="It would make">
      {ROLES.map((role) => {
        const found = offer.candidates.filter((c) => c.role === role)
        return found.length ? (
          <Figure key={role} label={manyOf(role, found.length)}>
            <span data-offer={role}>
              {showNumber(
                found.reduce((s, c) => s + c.area, 0),
                'area',
                project,
              )}{' '}
              {areaSign(project)}
            </span>
          </Figure>
        ) : null
      })}
      {offer.candidates.length === 0 && <p className="text-ink2">Nothing new: every face has its part.</p>}
      {offer.candidates.length > 0 && offer.volume !== null && (
        <Figure label="volume of all parts">{showVolume(offer.volume, project)}</Figure>
      )}
      {offer.volume === null && (
        <WorkingOut say="These can be made now; bodies and volume of so many are still worked out." />
      )}
      {off > 0 && (
        <Figure label="off bent faces by up to" tone="warn">
          <span data-off>{showQuantity(off, 'length', project)}</span>
        </Figure>
      )}
      {offer.candidates.length > 0 && (
        <Unfold className="mt-2" summary={<span className="text-[12px] text-ink2">each part</span>}>
          <ul className="mt-1 max-h-48 overflow-auto text-[12px]">
            {offer.candidates.slice(0, MOST_LISTED).map((c) => (
              <li key={c.key} className="flex justify-between gap-2 py-0.5">
                <span className="truncate">{c.name}</span>
                <span className="shrink-0 text-ink2">
                  {showNumber(c.area, 'area', project)}
                  {c.off ? `, off ${showNumber(c.off, 'length', project)}` : ''}
                  {c.warp ? `, ${showNumber(c.warp, 'length', project)} off flat` : ''}
                </span>
              </li>
            ))}
            {offer.candidates.length > MOST_LISTED && (
              <li className="py-0.5 text-ink2">and {offer.candidates.length - MOST_LISTED} more</li>
            )}
          </ul>
        </Unfold>
      )}
    </Section>
  )
}

/** so many parts are listed by name; nobody reads more */
const MOST_LISTED = 500
