import { Command } from 'cmdk'
import { useEffect, useRef, useState } from 'react'
import { inOrder, showNumber } from '@geotome/core/project'
import { levelHeights } from '@geotome/core/levels'
import { groundShown, levelShown, picked, schemeShown, sheetOpened } from '../app/view-slice'
import { FIND } from '../verbs/everywhere'
import { isAt, labelOf, VERBS } from '../verbs/list'
import { useNow } from '../verbs/use-now'
import { openKept } from '../views/open-kept'

interface Entry {
  group: string
  name: string
  note?: string
  key?: string | undefined
  off?: string | null | undefined
  run: () => void
}

/** Every action, level, mass, part, kept view and scheme by name. */
export function Find({ onClose }: { onClose: () => void }) {
  const entries = useEntries()
  const dialog = useRef<HTMLDialogElement>(null)
  const [text, setText] = useState('')
  useEffect(() => {
    const d = dialog.current
    if (d && !d.open) d.showModal()
    d?.querySelector('input')?.focus()
  }, [])
  const run = (e: Entry) => {
    onClose()
    e.run()
  }
  const groups = [...new Set(entries.map((e) => e.group))]
  return (
    <dialog
      ref={dialog}
      aria-label="Find"
      className="modal items-start"
      onClose={onClose}
      onCancel={onClose}
      onClick={(e) => {
        if (e.target === e.currentTarget) onClose()
      }}
      onKeyDown={(e) => e.stopPropagation()}
    >
      <Command
        label="Find"
        loop
        className="modal-box mt-[12vh] max-w-[520px] border border-line p-0 text-ink shadow-xl"
      >
        <Command.Input
          autoFocus
          value={text}
          onValueChange={setText}
          placeholder="Find an action, a level, a mass"
          className="h-12 w-full border-b border-line bg-transparent px-4 text-[15px] !outline-none"
        />
        <Command.List className="max-h-[50vh] overflow-auto p-1.5">
          <Command.Empty className="px-3 py-4 text-ink2">Nothing has that name.</Command.Empty>
          {groups.map((group) => (
            <Command.Group
              key={group}
              heading={group}
              className="[&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[11px] [&_[cmdk-group-heading]]:text-ink2"
            >
              {entries
                .filter((e) => e.group === group)
                .map((e, i) => (
                  <Command.Item
                    key={`${e.name}${i}`}
                    value={`${e.name} ${e.group} ${i}`}
                    disabled={!!e.off}
                    onSelect={() => run(e)}
                    className="flex cursor-pointer items-center justify-between gap-3 rounded-md px-2.5 py-1.5 data-[disabled=true]:opacity-45 data-[selected=true]:bg-field"
                  >
                    <span className="truncate">{e.name}</span>
                    <span className="shrink-0 text-[12px] text-ink2">{e.off ?? e.note ?? e.key ?? ''}</span>
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </dialog>
  )
}

function useEntries(): Entry[] {
  const now = useNow()
  const { project, scheme, dispatch, go } = now
  const { study } = now.view
  // Those of the desk that one is at come first.
  const verbs = VERBS.filter((v) => v.label !== FIND.label)
    .flatMap((v) => (v.opens ? (isAt(v, now.desk) ? v.opens(now) : []) : [v]))
    .sort((a, b) => Number(isAt(b, now.desk) && b.desks !== 'all') - Number(isAt(a, now.desk) && a.desks !== 'all'))
  return [
    ...verbs.map((v): Entry => {
      const there = v.desks === 'all' ? null : v.desks[0]
      return {
        group: 'Actions',
        name: labelOf(v, now),
        note: [there ? `${there} desk` : '', v.key ?? ''].filter(Boolean).join(', '),
        off: v.off?.(now),
        run: () => (there ? go(there, () => v.run(now)) : v.run(now)),
      }
    }),
    ...[...levelHeights(project, scheme)].reverse().map((l): Entry => ({
      group: 'Levels',
      name: l.name,
      note: `${l.height > 0 ? '+' : ''}${showNumber(l.height, 'length', project)}`,
      run: () => {
        dispatch(levelShown(l.id))
        dispatch(picked({ kind: 'level', ids: [l.id] }))
      },
    })),
    ...inOrder(scheme.masses).map((m): Entry => ({
      group: 'Masses',
      name: m.name,
      note: m.context ? 'context' : (project.uses[m.use]?.name ?? ''),
      run: () => dispatch(picked({ kind: 'mass', ids: [m.id] })),
    })),
    ...inOrder(project.pictures).map((p): Entry => ({
      group: 'Pictures',
      name: p.name,
      run: () =>
        go('ground', () => {
          dispatch(groundShown('pictures'))
          dispatch(picked({ kind: 'picture', ids: [p.id] }))
        }),
    })),
    ...inOrder(scheme.views).map((v): Entry => ({
      group: 'Kept views',
      name: v.name,
      run: () => openKept(v, dispatch, go),
    })),
    ...inOrder(project.schemes)
      .filter((s) => s.id !== scheme.id)
      .map((s): Entry => ({ group: 'Schemes', name: s.name, run: () => dispatch(schemeShown(s.id)) })),
    ...(study?.findings ?? [])
      .filter((f) => !f.muted)
      .slice(0, 40)
      .map((f): Entry => ({ group: 'Findings', name: f.say, run: () => dispatch(sheetOpened('findings')) })),
    ...(study?.parts ?? [])
      .slice(0, 400)
      .map((p): Entry => ({
        group: 'Parts',
        name: p.name,
        note: p.role,
        run: () => go('fabric', () => dispatch(picked({ kind: 'part', ids: [p.id] }))),
      })),
  ]
}
