import { ArrowLeft, Trash2 } from 'lucide-react'
import { calibrate, inOrder, numbersOf, type Picture } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { onPicture, removePicture, reorderPicture } from '@geotome/core/groundwork'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { benchOpened, elevationFrom, panesChosen, picked, type BenchTask } from '../app/view-slice'
import { Figure, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { confirmed } from '../common/confirm'
import { doubtOf } from '@geotome/core/picture'
import { PairFields } from './PairFields'
import { StandFields } from './StandFields'
import { PinFields } from './PinFields'

const TASKS: { id: BenchTask; label: string }[] = [
  { id: 'calibrate', label: 'Calibrate' },
  { id: 'measure', label: 'Measure' },
  { id: 'trace', label: 'Trace' },
  { id: 'levels', label: 'Read levels' },
  { id: 'crop', label: 'Crop' },
]
/** A picked picture: how it is calibrated, where it is laid, what it is tied to, how it looks. */
export function PictureDetails({ picture: p }: { picture: Picture }) {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const found = calibrate(p, numbersOf(project, null))
  const set = (label: string, fields: Partial<Picture>) =>
    makeEdit(`${label} of ${p.name}`.slice(0, 190), { edit: 'picture.change', id: p.id, set: fields })
  const bench = (task: BenchTask) => dispatch(benchOpened({ picture: p.id, task }))
  const pictures = inOrder(project.pictures)
  const move = (by: 1 | -1) => {
    const i = pictures.findIndex((o) => o.id === p.id)
    const edit = reorderPicture(project, p.id, i + by)
    if (edit) makeEdit(`order of ${p.name}`, edit)
  }
  const remove = async () => {
    const { measures, traces } = onPicture(project, p.id)
    const hanging = [...measures, ...traces].map((t) => t.name)
    if (
      hanging.length &&
      !(await confirmed({
        title: `Remove ${p.name}?`,
        say: [`${hanging.join(', ')} ${hanging.length === 1 ? 'goes' : 'go'} too.`],
        accept: 'Remove picture',
      }))
    )
      return
    if (makeEdit(`remove ${p.name}`.slice(0, 190), () => removePicture(project, p.id)))
      dispatch(picked({ kind: 'nothing' }))
  }
  return (
    <>
      <button
        className="mb-2 flex cursor-pointer items-center gap-1 text-[12px] text-ink2"
        onClick={() => dispatch(picked({ kind: 'nothing' }))}
      >
        <ArrowLeft size={13} /> all pictures
      </button>
      <NameField label="name" value={p.name} onAccept={(name) => set('name', { name })} />
      <div className="mb-3 grid grid-cols-2 gap-1.5">
        {TASKS.map((t) => (
          <button
            key={t.id}
            className={`btn btn-sm h-8 px-1 ${t.id === 'calibrate' && !found ? 'btn-primary' : ''}`}
            disabled={p.locked && t.id === 'crop'}
            onClick={() => bench(t.id)}
          >
            {t.label}
          </button>
        ))}
      </div>
      <Section title="Calibration">
        {found ? (
          <>
            <Figure label="scale">
              <span data-figure="scale">{(found.scale * 1000).toFixed(4)}</span> mm/px
            </Figure>
            <Figure label="tilt taken off">
              <span data-figure="tilt">{found.tilt.toFixed(3)}</span>°
            </Figure>
            <Figure label="error of its pairs">
              <span data-figure="error">
                {p.pairs.length > 1
                  ? `${(found.rms * 1000).toFixed(1)} mm, ${found.percent.toFixed(2)} %`
                  : 'one pair: none known'}
              </span>
            </Figure>
            {p.pairs.map((pair, i) => (
              <PairFields
                key={pair.id}
                pair={pair}
                off={found.off[i] ?? 0}
                doubt={doubtOf(
                  p.pairs.filter((o) => o.id !== pair.id),
                  pair,
                )}
                several={p.pairs.length > 1}
                disabled={p.locked}
                onChange={(fields) =>
                  set('pair', { pairs: p.pairs.map((o) => (o.id === pair.id ? { ...o, ...fields } : o)) })
                }
                onRemove={() => set('remove a pair', { pairs: p.pairs.filter((o) => o.id !== pair.id) })}
              />
            ))}
          </>
        ) : (
          <p className="text-warn">Not calibrated: lengths on it mean nothing yet.</p>
        )}
      </Section>
      <Section title="Where it is laid">
        {p.stands.map((s) => (
          <StandFields
            key={s.id}
            stand={s}
            disabled={p.locked}
            onChange={(next) => set('place', { stands: p.stands.map((o) => (o.id === s.id ? next : o)) })}
            onRemove={() => set('take up', { stands: p.stands.filter((o) => o.id !== s.id) })}
            onLook={() => {
              if (s.lies.kind === 'upright') {
                dispatch(elevationFrom(typeof s.lies.azimuth === 'number' ? s.lies.azimuth : -90))
                dispatch(panesChosen('elevation'))
              } else dispatch(panesChosen('plan'))
            }}
          />
        ))}
        <div className="flex gap-1.5">
          <button
            className="btn btn-sm h-8 flex-1 px-1 text-[12px]"
            disabled={p.locked}
            onClick={() =>
              set('lay in plan', {
                stands: [
                  ...p.stands,
                  { id: crypto.randomUUID(), lies: { kind: 'plan', level: null, above: 0 }, shown: true, front: false },
                ],
              })
            }
          >
            Lay in plan
          </button>
          <button
            className="btn btn-sm h-8 flex-1 px-1 text-[12px]"
            disabled={p.locked}
            onClick={() =>
              set('stand upright', {
                stands: [
                  ...p.stands,
                  {
                    id: crypto.randomUUID(),
                    lies: { kind: 'upright', azimuth: -90, toward: 0 },
                    shown: true,
                    front: false,
                  },
                ],
              })
            }
          >
            Stand upright
          </button>
        </div>
      </Section>
      <PinFields picture={p} set={set} />
      <Section title="Look">
        <label className="mb-1.5 flex h-9 items-center justify-between gap-3 rounded-md border border-line bg-field px-2.5 text-ink2">
          opacity
          <input
            type="range"
            aria-label="opacity"
            min={5}
            max={100}
            className="w-28 accent-ink"
            defaultValue={Math.round(p.opacity * 100)}
            onChange={(e) => {
              const opacity = Number(e.target.value) / 100
              if (opacity !== p.opacity) set('opacity', { opacity })
            }}
          />
        </label>
        <NumField
          label="turned by"
          quantity="angle"
          value={p.turn}
          hint="Counter-clockwise."
          disabled={p.locked}
          onAccept={(turn) => set('turn', { turn })}
        />
        <label className="flex cursor-pointer items-center justify-between px-1 py-1 text-ink2">
          locked
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={p.locked}
            onChange={(e) => set(e.target.checked ? 'lock' : 'unlock', { locked: e.target.checked })}
          />
        </label>
        <div className="flex gap-1.5">
          <button className="btn btn-sm h-7 flex-1 text-[12px]" onClick={() => move(1)}>
            Forward
          </button>
          <button className="btn btn-sm h-7 flex-1 text-[12px]" onClick={() => move(-1)}>
            Back
          </button>
        </div>
      </Section>
      <button className="btn btn-sm w-full text-error" onClick={() => void remove()}>
        <Trash2 size={14} /> Remove picture
      </button>
    </>
  )
}
