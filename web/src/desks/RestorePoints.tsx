import { Trash2 } from 'lucide-react'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useCallback, useEffect, useState } from 'react'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'
import { useParams } from 'react-router'
import { toast } from 'sonner'
import { api, Problem, type LoggedEdit, type RestorePoint } from '../app/api'
import { author } from '../app/author'
import { makeEdit, settled } from '../app/session'
import { useAppDispatch, useAppSelector } from '../app/store'
import { schemeShown } from '../app/view-slice'
import { confirmed } from '../common/confirm'
import { Dialog } from '../common/Dialog'
import { firstScheme } from '@geotome/core/study'
import { tellFault } from '../common/tell'

const FormSchema = v.object({ name: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(120)) })

/** Named moments of the log: keep the present as one, open one beside it, bring one back whole. */
export function RestorePoints({ onClose }: { onClose: () => void }) {
  const { id = '' } = useParams()
  const dispatch = useAppDispatch()
  const now = useAppSelector((s) => s.project.seq)
  const [points, setPoints] = useState<RestorePoint[] | null>(null)
  const { register, handleSubmit, reset, watch } = useForm({
    defaultValues: { name: '' },
    resolver: valibotResolver(FormSchema),
  })
  const say = (e: unknown) => tellFault(e instanceof Problem ? e.message : String(e))
  const load = useCallback(() => {
    api.restorePoints(id).then(setPoints, say)
  }, [id])
  useEffect(load, [load])
  const keep = handleSubmit(async ({ name }) => {
    try {
      await settled()
      await api.keepPoint(id, { id: crypto.randomUUID(), name })
      reset()
      load()
    } catch (e) {
      say(e)
    }
  })
  const bringBack = async (p: RestorePoint) => {
    try {
      await settled()
      const others = (await api.since(id, p.seq)).filter((e) => e.author !== author())
      if (others.length && !(await askFirst(p.name, others))) return
      const { project } = await api.at(id, p.seq)
      dispatch(schemeShown(firstScheme(project).id))
      if (makeEdit(`bring back "${p.name}"`, { edit: 'whole.set', project })) {
        toast(`${p.name} is back, whole. Undo returns to what was there before.`)
        onClose()
      }
    } catch (e) {
      say(e)
    }
  }
  return (
    <Dialog title="Restore points" onClose={onClose}>
      <div className="mb-3 flex gap-2">
        <input
          {...register('name')}
          autoFocus
          aria-label="name of the moment"
          placeholder="name this moment"
          className="input input-sm min-w-0 flex-1"
          maxLength={120}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              e.preventDefault()
              void keep()
            }
          }}
        />
        <button
          type="button"
          className="btn btn-sm btn-primary"
          disabled={!watch('name').trim()}
          onClick={() => void keep()}
        >
          Keep it
        </button>
      </div>
      {points?.length === 0 && (
        <p className="text-ink2">
          None yet. Name the present moment before you try something: it can be opened beside the present, and brought
          back whole.
        </p>
      )}
      <ul className="max-h-72 overflow-auto">
        {points?.map((p) => (
          <li key={p.id} className="flex items-center gap-2 border-b border-line py-2" data-point={p.name}>
            <span className="min-w-0 flex-1">
              <span className="block truncate font-medium">{p.name}</span>
              <span className="text-[12px] text-ink2">
                {new Date(p.at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })},{' '}
                {p.seq === now ? 'nothing changed since' : `${now - p.seq} edits ago`}
              </span>
            </span>
            <a
              className="btn btn-sm h-7 px-2 text-[12px]"
              href={`/p/${id}/slice?at=${p.seq}`}
              target="_blank"
              rel="noreferrer"
            >
              Open beside
            </a>
            <button
              type="button"
              className="btn btn-sm h-7 px-2 text-[12px]"
              disabled={p.seq === now}
              onClick={() => void bringBack(p)}
            >
              Bring back
            </button>
            <button
              type="button"
              className="cursor-pointer p-1 text-ink3 hover:text-error"
              aria-label={`Forget ${p.name}`}
              onClick={() => void api.dropPoint(id, p.id).then(load, say)}
            >
              <Trash2 size={13} />
            </button>
          </li>
        ))}
      </ul>
    </Dialog>
  )
}

/** What others have done since a moment would go with it: said by what it is called, and asked. */
function askFirst(name: string, others: LoggedEdit[]): Promise<boolean> {
  const what = [...new Set(others.map((e) => e.label))]
  const some = what.slice(0, 6).join(', ')
  return confirmed({
    title: `Others have worked since "${name}"`,
    say: [
      `${others.length === 1 ? 'One change was' : `${others.length} changes were`} made by others since then: ${some}${what.length > 6 ? ` and ${what.length - 6} more` : ''}.`,
      'Bringing the moment back takes them away too. Undo brings them back.',
    ],
    accept: 'Bring it back',
  })
}
