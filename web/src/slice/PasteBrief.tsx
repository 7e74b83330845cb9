import { useState } from 'react'
import { readBrief } from '@geotome/core/groundwork'
import { EXAMPLES, Refusal } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { inUnits } from '../common/tell'

const mint = () => crypto.randomUUID()

/** A table that is pasted as lines of the brief; what cannot be read is said by its cells, and what was pasted stays. */
export function PasteBrief({ done }: { done: () => void }) {
  const { project } = useProject()
  const [text, setText] = useState('')
  const [fault, setFault] = useState<string | null>(null)
  const read = () => {
    try {
      const edit = readBrief(project, text, mint)
      if (makeEdit('read the brief', edit)) done()
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      setFault(inUnits(e.message))
    }
  }
  return (
    <div className="max-w-xl pt-2">
      <textarea
        aria-label="the table"
        autoFocus
        rows={4}
        className="textarea w-full font-mono text-[12px]"
        placeholder={EXAMPLES[project.unit].brief}
        value={text}
        onChange={(e) => {
          setText(e.target.value)
          setFault(null)
        }}
      />
      <p className="py-1 text-[12px] text-ink2">
        A name and a target in each row; if wanted how far it may be off, about or at least or at most, the area of one
        of them, gross or net.
      </p>
      {fault && (
        <p role="alert" className="pb-1 text-[12.5px] text-warn">
          {fault}
        </p>
      )}
      <button className="btn btn-sm btn-primary h-7 text-[12px]" disabled={!text.trim()} onClick={read}>
        Read it
      </button>
    </div>
  )
}
