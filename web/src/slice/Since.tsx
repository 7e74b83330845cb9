import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import type { BriefFigure } from '@geotome/core/study'
import { api, type RestorePoint } from '../app/api'
import { settled } from '../app/session'
import { useOf } from '../app/hooks'
import { useAppSelector } from '../app/store'
import { studyWorker } from '../worker/client'

/** Another moment of the project: nothing, the one before the last edit, or a restore point by its place in the log. */
type Moment = '' | 'last' | number

/** The brief at another moment, once it is known. */
export function useSince() {
  const { id = '' } = useParams()
  const seq = useAppSelector((s) => s.project.seq)
  const scheme = useOf((at) => [at.scheme.id])[0] ?? ''
  const [moment, choose] = useState<Moment>('')
  const [past, setPast] = useState<{ area: number; brief: BriefFigure[] } | null>(null)
  useEffect(() => {
    setPast(null)
    if (moment === '') return
    let mine = true
    void settled()
      .then(() => api.at(id, moment === 'last' ? Math.max(0, seq - 1) : moment))
      .then(({ project }) => studyWorker.past(project, scheme))
      .then((found) => mine && setPast(found))
      .catch(() => undefined)
    return () => {
      mine = false
    }
  }, [id, moment, seq, scheme])
  return { moment, choose, past }
}

/** What the brief is set beside: the last edit, or a restore point. */
export function SinceChoice({ moment, choose }: { moment: Moment; choose: (moment: Moment) => void }) {
  const { id = '' } = useParams()
  const [points, setPoints] = useState<RestorePoint[]>([])
  useEffect(() => {
    api.restorePoints(id).then(setPoints, () => undefined)
  }, [id])
  return (
    <label className="flex items-center gap-1.5 text-[12px]">
      <span className="text-ink2">changes since</span>
      <select
        aria-label="changes since"
        className="select select-sm h-7 w-auto cursor-pointer rounded py-0 text-[12px]"
        value={String(moment)}
        onChange={(e) => {
          const { value } = e.target
          choose(value === '' || value === 'last' ? value : Number(value))
        }}
      >
        <option value="">nothing</option>
        <option value="last">the last edit</option>
        {points.map((p) => (
          <option key={p.id} value={p.seq}>
            {p.name}
          </option>
        ))}
      </select>
    </label>
  )
}
