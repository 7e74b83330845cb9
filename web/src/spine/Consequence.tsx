import type { Edit } from '@geotome/core/edits'
import { consequencesOf } from '@geotome/core/levels'
import { Refusal, showNumber } from '@geotome/core/project'
import { useProject } from '../app/hooks'

/** What an edit of levels brings about, before it is made: what moves, what follows, and what does not. */
export function Consequence({ edit, brief = false }: { edit: Edit; brief?: boolean }) {
  const { project, scheme } = useProject()
  const c = (() => {
    try {
      return consequencesOf(project, scheme, edit)
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  })()
  if (!c) return null
  const z = (v: number) => showNumber(v, 'length', project)
  const some = (names: string[]) =>
    names.length > 3 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more` : names.join(', ')
  const lines = [
    c.moved.length
      ? `${c.moved.length === 1 ? c.moved[0]?.name : `${c.moved.length} levels`} ${c.moved.length === 1 ? `moves from ${z(c.moved[0]?.from ?? 0)} to ${z(c.moved[0]?.to ?? 0)}` : `move, ${c.moved[0]?.name} to ${z(c.moved[0]?.to ?? 0)}`}`
      : '',
    c.renamed.length ? `${c.renamed.length} renamed, ${c.renamed[0]?.from} to ${c.renamed[0]?.to}` : '',
    c.held.length && c.moved.length
      ? `${some(c.held)} ${c.held.length === 1 ? 'keeps its height' : 'keep their heights'}`
      : '',
    ...(['moves', 'grows', 'shrinks'] as const).map((how) => {
      const names = c.masses.filter((m) => m.how === how).map((m) => m.name)
      return names.length ? `${some(names)} ${names.length === 1 ? how : how.slice(0, -1)}` : ''
    }),
    c.parts ? `${c.parts} ${c.parts === 1 ? 'part follows' : 'parts follow'}` : '',
    c.cut.length && !brief
      ? `${some(c.cut)} ${c.cut.length === 1 ? 'stays and is' : 'stay and are'} cut elsewhere`
      : '',
    c.loose.length ? `${some(c.loose)} ${c.loose.length === 1 ? 'was let go and stays' : 'were let go and stay'}` : '',
  ].filter(Boolean)
  return (
    <>
      {!brief && c.topmost && (
        <span className="block text-[11px] font-normal text-ink2">
          topmost: {c.topmost.name} at {z(c.topmost.height)} {project.unit === 'ft' ? '' : project.unit}
        </span>
      )}
      {lines.map((l) => (
        <span key={l} className="block text-[11px] font-normal text-ink2">
          {l}
        </span>
      ))}
    </>
  )
}
