import { useState } from 'react'
import { toast } from 'sonner'
import { addLevel, addStoreys, levelHeights } from '@geotome/core/levels'
import { readTyped, Refusal } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { levelShown } from '../app/view-slice'
import { Dialog } from '../common/Dialog'

const mint = () => crypto.randomUUID()

/** One level, or several storeys at one go, on top of a chosen level. */
export function AddLevels({ how, above, onClose }: { how: 'one' | 'many'; above: string | null; onClose: () => void }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const levels = levelHeights(project, scheme)
  const storeys = levels.filter((l) => l.kind === 'storey')
  const [on, setOn] = useState(() => (how === 'one' && above ? above : (storeys.at(-1) ?? levels.at(-1))?.id ?? ''))
  const [name, setName] = useState(how === 'one' ? `Level ${levels.length}` : 'Storey {n}')
  const [by, setBy] = useState({ m: '3.15', mm: '3150', ft: '10\' 4"' }[project.unit])
  const [kind, setKind] = useState<'storey' | 'mark'>('storey')
  const [count, setCount] = useState('20')
  const [first, setFirst] = useState(String(storeys.length))
  const stands = levels.some((l) => scheme.levels[l.id]?.tie.kind === 'stacked' && (scheme.levels[l.id]?.tie as { on?: string }).on === on)
  const [carry, setCarry] = useState<'carried' | 'held'>('carried')

  const accept = () => {
    try {
      const { num } = readTyped(by, 'length', project, scheme)
      const edit = how === 'one'
        ? addLevel(scheme, mint, { name, kind, on, above: num })
        : addStoreys(project, scheme, mint, { on, count: Number(count), each: num, pattern: name, first: Number(first) || 0 }, carry)
      if (!makeEdit(how === 'one' ? `add ${name}` : `add ${count} storeys`, edit)) return
      if (edit.edit === 'level.add') dispatch(levelShown(edit.thing.id))
      onClose()
    } catch (e) { if (e instanceof Refusal) toast.error(e.message); else throw e }
  }
  return (
    <Dialog title={how === 'one' ? 'Add a level' : 'Add several storeys'} onClose={onClose} onAccept={accept} accept={how === 'one' ? 'Add level' : `Add ${count} storeys`}>
      <Row label="stands on"><select aria-label="stands on" className={FIELD} value={on} onChange={(e) => setOn(e.target.value)}>{[...levels].reverse().map((l) => <option key={l.id} value={l.id}>{l.name}</option>)}</select></Row>
      {how === 'many' && <Row label="how many"><input aria-label="how many" autoFocus className={FIELD} inputMode="numeric" value={count} onChange={(e) => setCount(e.target.value)} /></Row>}
      <Row label={how === 'one' ? `above it by (${project.unit})` : `each (${project.unit})`}><input aria-label={how === 'one' ? 'above it by' : 'each'} autoFocus={how === 'one'} className={FIELD} value={by} onChange={(e) => setBy(e.target.value)} onFocus={(e) => e.currentTarget.select()} /></Row>
      <Row label={how === 'one' ? 'name' : 'names, {n} counts'}><input aria-label="name" className={FIELD} value={name} onChange={(e) => setName(e.target.value)} /></Row>
      {how === 'one' && <Row label="kind"><select aria-label="kind" className={FIELD} value={kind} onChange={(e) => setKind(e.target.value as 'storey')}><option value="storey">storey: carries a floor</option><option value="mark">mark: a height only</option></select></Row>}
      {how === 'many' && <Row label="counted from"><input aria-label="counted from" className={FIELD} inputMode="numeric" value={first} onChange={(e) => setFirst(e.target.value)} /></Row>}
      {how === 'many' && stands && <Row label="levels that stand there"><select aria-label="levels that stand there" className={FIELD} value={carry} onChange={(e) => setCarry(e.target.value as 'held')}><option value="carried">are carried up</option><option value="held">keep their heights</option></select></Row>}
      <p className="mt-2 text-[12px] text-ink2">{how === 'one' ? 'Below zero the level hangs under the one chosen.' : 'Arithmetic and units are read everywhere: 2.80 + 0.35, 3150 mm.'}</p>
    </Dialog>
  )
}

const FIELD = 'h-8 w-40 rounded-md border border-line bg-field px-2 text-right font-semibold'
const Row = ({ label, children }: { label: string; children: React.ReactNode }) => <div className="mb-2 flex items-center justify-between gap-4"><span className="text-ink2">{label}</span>{children}</div>
