import { useRef } from 'react'
import { inOrder } from '@geotome/core/project'
import { pointsOfText } from '@geotome/core/repeats'
import { useProject } from '../app/hooks'
import { workerReady } from '../app/study-loop'
import { ChoiceField } from '../common/fields'
import { orSay } from '../common/refused'
import { studyWorker } from '../worker/client'

/** Points read from a table, or from what is traced on a picture: east and north of each in turn, m. */
export function PointsSource({ set }: { set: (list: number[]) => void }) {
  const { project, scheme } = useProject()
  const file = useRef<HTMLInputElement>(null)
  const traces = inOrder(project.traces)
  const read = async (from: () => Promise<number[]>) => {
    const list = await orSay(from())
    if (list) set(list)
  }
  return (
    <>
      <input
        ref={file}
        type="file"
        hidden
        aria-label="Table of points"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        onChange={(e) => {
          const [chosen] = e.currentTarget.files ?? []
          e.currentTarget.value = ''
          if (chosen) void read(async () => pointsOfText(await chosen.text()))
        }}
      />
      <button className="btn btn-sm mb-1.5 h-7 w-full text-[12px]" onClick={() => file.current?.click()}>
        Points from a table
      </button>
      {traces.length > 0 && (
        <ChoiceField
          label="points of"
          value=""
          options={[{ value: '', label: 'what is traced ...' }, ...traces.map((t) => ({ value: t.id, label: t.name }))]}
          onChange={(id) =>
            id &&
            void read(async () => {
              await workerReady()
              const loops = await studyWorker.tracedPlan(scheme.id, id)
              return loops.flatMap((l) => l.points.flat())
            })
          }
        />
      )}
    </>
  )
}
