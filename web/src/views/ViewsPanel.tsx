import { Camera, Trash2, X } from 'lucide-react'
import { lazy, Suspense, useState } from 'react'
import { inOrder, nextOrder, type KeptView } from '@geotome/core/project'
import { useProject, useStudy, useViewState } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch, useAppSelector } from '../app/store'
import {
  keptOpened,
  labelsChosen,
  LABELS,
  showsChanged,
  thingsHidden,
  viewsToggled,
  type Shows,
} from '../app/view-slice'
import { ChoiceField, Section } from '../common/fields'
import type { StageShows } from '../stage/shows'
import { viewOf, type PaneName } from '../stage/views'
import { useAsk } from '../verbs/use-now'
import { openKept } from './open-kept'

/** It draws in the page itself, with all that takes: loaded when it is asked for. */
const PictureDialog = lazy(() => import('./PictureDialog'))

/** What the stage shows, and how; and the kept views, each of which says all that itself. */
export function ViewsPanel({ at }: { at: StageShows }) {
  return useAppSelector((s) => s.view.viewsOpen) && <OpenPanel at={at} />
}

function OpenPanel({ at }: { at: StageShows }) {
  const dispatch = useAppDispatch()
  const { scheme } = useProject()
  const { shows, hidden, picked, labelSays } = useViewState('shows', 'hidden', 'picked', 'labelSays')
  const study = useStudy()
  const toggle = (key: keyof Shows, label: string) => (
    <label className="flex cursor-pointer items-center justify-between py-[3px]">
      {label}
      <input
        type="checkbox"
        className="checkbox checkbox-xs"
        checked={shows[key] === true}
        onChange={(e) => dispatch(showsChanged({ [key]: e.target.checked }))}
      />
    </label>
  )
  const names = new Map([...(study?.masses ?? []), ...(study?.parts ?? [])].map((t) => [t.id, t.name]))
  const ids = picked.kind === 'mass' || picked.kind === 'part' ? picked.ids : []
  return (
    <section
      aria-label="Views"
      className="absolute top-[98px] right-3 z-20 flex max-h-[calc(100%-12.5rem)] w-64 flex-col overflow-auto rounded-lg border border-line bg-panel p-3 shadow-md"
      onKeyDown={(e) => {
        if (e.key === 'Escape') {
          e.stopPropagation()
          dispatch(viewsToggled(false))
        }
      }}
    >
      <div className="mb-2 flex items-center justify-between">
        <h2 className="eyebrow">Kept views</h2>
        <button className="cursor-pointer p-0.5" aria-label="Close" onClick={() => dispatch(viewsToggled(false))}>
          <X size={14} />
        </button>
      </div>
      <KeptViews at={at} />
      <Section title="What is shown">
        <ChoiceField
          label="forms"
          value={shows.masses}
          options={[
            { value: 'solid', label: 'solid' },
            { value: 'see-through', label: 'seen through' },
            { value: 'hidden', label: 'not at all' },
          ]}
          onChange={(masses) => dispatch(showsChanged({ masses }))}
        />
        {toggle('fabric', 'fabric, at its desk')}
        {toggle('context', 'context')}
        {toggle('labels', 'labels on the cut')}
        {shows.labels && (
          <ChoiceField
            label="they say"
            value={labelSays}
            options={LABELS.map((value) => ({ value, label: value }))}
            onChange={(says) => dispatch(labelsChosen(says))}
          />
        )}
        {toggle('materials', 'materials')}
        {toggle('pictures', 'pictures')}
        {toggle('terrain', 'terrain')}
        {toggle('envelope', 'envelope, and what is over')}
        <div className="mt-1.5">
          <ChoiceField
            label="levels"
            value={shows.levels}
            options={[
              { value: 'none', label: 'none' },
              { value: 'marks', label: 'marks in 3D' },
              { value: 'all', label: 'all, as planes' },
            ]}
            onChange={(levels) => dispatch(showsChanged({ levels }))}
          />
        </div>
        <div className="mt-1.5 flex gap-1.5">
          <button
            className="btn btn-sm h-7 flex-1 text-[12px]"
            disabled={ids.length === 0}
            title={ids.length ? undefined : 'Pick a mass or a part first'}
            onClick={() => dispatch(thingsHidden([...new Set([...hidden, ...ids])]))}
          >
            Hide picked
          </button>
          <button
            className="btn btn-sm h-7 flex-1 text-[12px]"
            disabled={hidden.length === 0}
            onClick={() => dispatch(thingsHidden([]))}
          >
            Show all {hidden.length || ''}
          </button>
        </div>
        {hidden.length > 0 && (
          <ul className="mt-1.5 text-[12px] text-ink2">
            {hidden.map((id) => (
              <li key={id} className="flex justify-between">
                <span className="truncate">{names.get(id) ?? scheme.masses[id]?.name ?? 'gone'}</span>
                <button
                  className="cursor-pointer underline"
                  onClick={() => dispatch(thingsHidden(hidden.filter((h) => h !== id)))}
                >
                  show
                </button>
              </li>
            ))}
          </ul>
        )}
      </Section>
    </section>
  )
}

function KeptViews({ at }: { at: StageShows }) {
  const dispatch = useAppDispatch()
  const ask = useAsk()
  const { scheme } = useProject()
  const state = useViewState('panes', 'elevation', 'section', 'level', 'shows', 'hidden', 'kept')
  const study = useStudy()
  const [picture, setPicture] = useState<KeptView | null>(null)
  const kept = inOrder(scheme.views)
  /** The view as it is on the stage now. */
  const present = (base: Pick<KeptView, 'id' | 'name' | 'order'>): KeptView => {
    const pane: PaneName = state.panes === 'both' || state.panes === 'four' ? '3d' : state.panes
    const camera = viewOf(pane)
    const width = document.querySelector<HTMLElement>(`[data-pane="${pane}"]`)?.clientWidth ?? 1000
    const [ox, oy] = study?.origin ?? [0, 0]
    return {
      ...base,
      pane,
      upright:
        pane === 'elevation' ? { azimuth: state.elevation, toward: 0 } : pane === 'section' ? state.section : null,
      blade: at.blade || pane === 'plan' ? state.level : null,
      hidden: state.hidden,
      shows: { ...state.shows, fabric: at.fabric && state.shows.fabric },
      camera: {
        target: [camera.target[0] + ox, camera.target[1] + oy, camera.target[2]],
        azimuth: camera.azimuth,
        elevation: camera.elevation,
        scale: (camera.scale * 1000) / width,
      },
    }
  }
  const keep = () => {
    let n = kept.length + 1
    while (kept.some((v) => v.name === `View ${n}`)) n++
    const view = present({ id: crypto.randomUUID(), name: `View ${n}`, order: nextOrder(scheme.views) })
    if (makeEdit(`keep ${view.name}`, { edit: 'view.add', scheme: scheme.id, thing: view })) dispatch(keptOpened(view))
  }
  const change = (v: KeptView, set: Partial<Omit<KeptView, 'id'>>, label: string) =>
    makeEdit(`${label} ${v.name}`, { edit: 'view.change', scheme: scheme.id, id: v.id, set })
  return (
    <div className="mb-4">
      {kept.length === 0 && (
        <p className="mb-2 text-[12px] text-ink2">
          A kept view remembers camera, blade, what is shown and how. Nothing else changes it.
        </p>
      )}
      <ul>
        {kept.map((v) => (
          <li
            key={v.id}
            data-kept={v.name}
            className={`mb-1 rounded-md border p-1.5 ${state.kept === v.id ? 'border-ink3 bg-field' : 'border-line'}`}
          >
            <div className="flex items-center gap-1">
              <button
                className="cursor-pointer rounded px-1.5 text-[12px] font-semibold underline"
                onClick={() => openKept(v, dispatch, ask().go)}
              >
                open
              </button>
              <input
                aria-label={`name of ${v.name}`}
                key={v.name}
                defaultValue={v.name}
                maxLength={120}
                className="min-w-0 flex-1 rounded bg-transparent px-1 font-medium outline-none focus:bg-paper"
                onBlur={(e) => {
                  const name = e.target.value.trim()
                  if (name && name !== v.name) change(v, { name }, 'rename')
                }}
                onKeyDown={(e) => {
                  if (e.key === 'Enter') e.currentTarget.blur()
                }}
              />
            </div>
            <div className="mt-1 flex items-center gap-3 text-[11px] text-ink2">
              <span>
                {v.pane === '3d' ? '3D' : v.pane}
                {v.blade ? `, ${scheme.levels[v.blade]?.name ?? 'level gone'}` : ''}
              </span>
              <span className="flex-1" />
              <button
                className="cursor-pointer underline"
                title="Keep what the stage shows now under this name"
                onClick={() => {
                  const now = present(v)
                  const { id: _, ...set } = now
                  if (change(v, set, 'set anew')) dispatch(keptOpened(now))
                }}
              >
                set anew
              </button>
              <button
                className="cursor-pointer"
                aria-label={`Picture of ${v.name}`}
                title="Picture, PNG"
                onClick={() => setPicture(v)}
              >
                <Camera size={13} />
              </button>
              <button
                className="cursor-pointer hover:text-error"
                aria-label={`Remove ${v.name}`}
                onClick={() => makeEdit(`remove ${v.name}`, { edit: 'view.remove', scheme: scheme.id, id: v.id })}
              >
                <Trash2 size={12} />
              </button>
            </div>
          </li>
        ))}
      </ul>
      <button className="btn btn-sm mt-1 h-8 w-full text-[12px]" onClick={keep}>
        Keep this view
      </button>
      {picture && (
        <Suspense>
          <PictureDialog view={picture} onClose={() => setPicture(null)} />
        </Suspense>
      )}
    </div>
  )
}
