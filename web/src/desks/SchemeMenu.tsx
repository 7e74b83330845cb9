import { duplicateScheme } from '@geotome/core/groundwork'
import { ChevronDown } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { inOrder, type Scheme } from '@geotome/core/project'
import { useOf, useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch, useAppSelector } from '../app/store'
import { ALL_SCHEMES, compared, schemeShown, sheetOpened } from '../app/view-slice'
import { confirmed } from '../common/confirm'

/** The scheme that is worked on: switch, duplicate, rename, delete, compare. */
export function SchemeMenu() {
  const name = useOf(({ scheme }) => scheme.name)
  const [open, setOpen] = useState(false)
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (!open) return
    const away = (e: PointerEvent) => {
      if (!box.current?.contains(e.target as Node)) setOpen(false)
    }
    window.addEventListener('pointerdown', away)
    return () => window.removeEventListener('pointerdown', away)
  }, [open])
  return (
    <div
      ref={box}
      className="relative"
      onKeyDown={(e) => {
        if (e.key === 'Escape' && open) {
          e.stopPropagation()
          setOpen(false)
        }
      }}
    >
      <button
        className="flex cursor-pointer items-center gap-1 font-semibold"
        aria-haspopup="menu"
        aria-expanded={open}
        title="Schemes of this project"
        onClick={() => setOpen(!open)}
        data-scheme={name}
      >
        {name}
        <ChevronDown size={13} />
      </button>
      {open && <SchemeList close={() => setOpen(false)} />}
    </div>
  )
}

/** The schemes of the project, and what can be done with them. */
function SchemeList({ close }: { close: () => void }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const schemes = inOrder(project.schemes)
  const show = (id: string) => {
    dispatch(schemeShown(id))
    close()
  }
  return (
    <div
      role="menu"
      aria-label="Schemes"
      className="absolute top-7 left-0 z-50 w-80 rounded-box border border-line bg-panel p-1.5 shadow-lg"
    >
      {schemes.map((s) => (
        <SchemeRow
          key={s.id}
          scheme={s}
          on={s.id === scheme.id}
          only={schemes.length === 1}
          show={() => show(s.id)}
          close={close}
        />
      ))}
      <div className="mt-1 flex gap-1.5 border-t border-line pt-1.5">
        <button
          className="btn btn-sm h-7 flex-1 text-[12px]"
          onClick={() => {
            const id = crypto.randomUUID()
            if (makeEdit(`duplicate ${scheme.name}`, () => duplicateScheme(project, scheme, id))) show(id)
          }}
        >
          Duplicate {scheme.name}
        </button>
        <Link className="btn btn-sm h-7 text-[12px]" to={`/p/${project.id}/summary`}>
          All on one page
        </Link>
      </div>
      {schemes.length > 1 && (
        <CompareChoice
          done={() => {
            dispatch(sheetOpened('compare'))
            close()
          }}
        />
      )}
    </div>
  )
}

function SchemeRow({
  scheme: s,
  on,
  only,
  show,
  close,
}: {
  scheme: Scheme
  on: boolean
  only: boolean
  show: () => void
  close: () => void
}) {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const [name, setName] = useState<string | null>(null)
  const remove = async () => {
    const count = Object.keys(s.masses).length
    close()
    if (
      !(await confirmed({
        title: `Delete ${s.name}?`,
        say: [
          `It has ${count} ${count === 1 ? 'mass' : 'masses'} and ${Object.keys(s.parts).length} parts. Undo brings it back.`,
        ],
        accept: 'Delete the scheme',
      }))
    )
      return
    const other = inOrder(project.schemes).find((o) => o.id !== s.id)
    if (on && other) dispatch(schemeShown(other.id))
    makeEdit(`delete ${s.name}`, { edit: 'scheme.remove', id: s.id })
  }
  const accept = () => {
    const next = name?.trim()
    if (next && next !== s.name) makeEdit(`rename ${s.name}`, { edit: 'scheme.change', id: s.id, set: { name: next } })
    setName(null)
  }
  return (
    <div role="none" className={`flex items-center gap-1 rounded px-1.5 py-1 ${on ? 'bg-field' : ''}`}>
      {name === null ? (
        <button
          role="menuitemradio"
          aria-checked={on}
          className="min-w-0 flex-1 cursor-pointer truncate text-left font-medium"
          onClick={show}
        >
          {s.name}
          {s.aside && <span className="font-normal text-ink2">, put aside</span>}
        </button>
      ) : (
        <input
          autoFocus
          aria-label={`name of ${s.name}`}
          className="input input-sm min-w-0 flex-1 rounded"
          value={name}
          maxLength={120}
          onChange={(e) => setName(e.target.value)}
          onBlur={accept}
          onKeyDown={(e) => {
            e.stopPropagation()
            if (e.key === 'Enter') accept()
            if (e.key === 'Escape') setName(null)
          }}
        />
      )}
      <button
        className="cursor-pointer px-1 text-[11px] text-ink2 underline"
        onClick={() => setName(s.name)}
        aria-label={`Rename ${s.name}`}
      >
        rename
      </button>
      {!only && (
        <button
          className="cursor-pointer px-1 text-[11px] text-ink2 underline"
          aria-label={s.aside ? `Bring ${s.name} back` : `Put ${s.name} aside`}
          onClick={() =>
            makeEdit(`${s.aside ? 'bring back' : 'put aside'} ${s.name}`, {
              edit: 'scheme.change',
              id: s.id,
              set: { aside: !s.aside },
            })
          }
        >
          {s.aside ? 'bring back' : 'aside'}
        </button>
      )}
      {!only && (
        <button
          className="cursor-pointer px-1 text-[11px] text-ink2 underline"
          onClick={() => void remove()}
          aria-label={`Delete ${s.name}`}
        >
          delete
        </button>
      )}
    </div>
  )
}

function CompareChoice({ done }: { done: () => void }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const compare = useAppSelector((s) => s.view.compare)
  return (
    <label className="mt-1.5 flex items-center justify-between gap-2 border-t border-line px-1.5 pt-1.5 text-[12px]">
      <span className="text-ink2">compare with</span>
      <select
        className="select select-sm cursor-pointer rounded py-0.5 font-semibold"
        value={compare ?? ''}
        onChange={(e) => {
          dispatch(compared(e.target.value || null))
          if (e.target.value) done()
        }}
      >
        <option value="">nothing</option>
        {inOrder(project.schemes)
          .filter((s) => s.id !== scheme.id)
          .map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        {Object.keys(project.schemes).length > 2 && <option value={ALL_SCHEMES}>all others</option>}
      </select>
    </label>
  )
}
