import { Trash2 } from 'lucide-react'
import { changeMove, ridgeAlongOf, setPitch } from '@geotome/core/form'
import { corners, outlineFault, polygonOf, type Move } from '@geotome/core/moves'
import { levelHeights } from '@geotome/core/levels'
import { numbersOf, showNumber, type Mass, type Num } from '@geotome/core/project'
import { useProject, useStudy, useUses } from '../app/hooks'
import { makeEdit, tryEdit } from '../app/session'
import { ChoiceField, Figure, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { deleteMasses } from '../form/delete-masses'

/** A picked mass: its use, base, numbers, storeys, and its recipe move by move. */
export function MassDetails({ mass }: { mass: Mass }) {
  const { project, scheme } = useProject()
  const study = useStudy()
  const uses = useUses()
  const shown = study?.masses.find((m) => m.id === mass.id)
  const set = (label: string, fields: Partial<Mass>) => makeEdit(`${label} of ${mass.name}`, { edit: 'mass.change', scheme: scheme.id, id: mass.id, set: fields })
  const levels = levelHeights(project, scheme)
  const storeys = levels.filter((l) => l.kind === 'storey')
  const numbers = numbersOf(project, scheme)
  const takes = (id: string) => mass.takes.levels.includes(id) === (mass.takes.kind === 'only')
  const toggle = (id: string) => set('storeys', { takes: { ...mass.takes, levels: mass.takes.levels.includes(id) ? mass.takes.levels.filter((l) => l !== id) : [...mass.takes.levels, id] } })
  const within = shown ? storeys.filter((l) => l.height < shown.top - 1e-5 && l.height > shown.base - 1e-5) : storeys
  const place = (key: 'x' | 'y' | 'turn') => (num: Num) => set('place', { place: { ...mass.place, [key]: num } })
  return (
    <>
      <p className="eyebrow mb-2">Mass</p>
      <NameField label="name" value={mass.name} onAccept={(name) => set('name', { name })} />
      <ChoiceField label="use" value={mass.use} options={uses.map((u) => ({ value: u.id, label: u.name }))} onChange={(use) => set('use', { use })} />
      <ChoiceField label="stands on" value={mass.base.level} options={[...levels].reverse().map((l) => ({ value: l.id, label: `${l.name}  ${l.height.toFixed(2)}` }))} onChange={(level) => set('base', { base: { ...mass.base, level } })} />
      <NumField label="above it by" value={mass.base.offset} onAccept={(offset) => set('base', { base: { ...mass.base, offset } })} />
      <div className="mt-3" />
      <Section title="Recipe">
        {mass.recipe.map((move) => <MoveFields key={move.id} mass={mass} move={move} ridge={shown?.ridge ?? null} />)}
        {!mass.recipe.some((m) => m.move === 'pitch') && (
          <button className="act w-full" onClick={() => makeEdit(`pitch ${mass.name}`, () => setPitch(scheme, mass, () => crypto.randomUUID(), { angle: 35, direction: ridgeAlongOf(mass, numbers) }))}>Give it a pitch</button>
        )}
      </Section>
      <Section title="Place">
        <NumField label="east" value={mass.place.x} onAccept={place('x')} />
        <NumField label="north" value={mass.place.y} onAccept={place('y')} />
        <NumField label="turned by" quantity="angle" value={mass.place.turn} onAccept={place('turn')} />
      </Section>
      <Section title="Storeys it takes">
        <ul className="max-h-44 overflow-auto rounded-md border border-line bg-field px-2.5 py-1">
          {[...within].reverse().map((l) => (
            <li key={l.id}><label className="flex cursor-pointer items-center justify-between py-[3px]"><span>{l.name} <span className="text-ink2">{showNumber(l.height, 'length', project.unit, project.unit === 'm' ? 2 : 0)}</span></span><input type="checkbox" className="checkbox checkbox-xs" checked={takes(l.id)} onChange={() => toggle(l.id)} /></label></li>
          ))}
        </ul>
      </Section>
      {shown && <Section title="Figures">
        <Figure label="floor, all storeys">{showNumber(study?.floors.reduce((s, f) => s + f.plates.filter((p) => p.mass === mass.id).reduce((a, p) => a + p.area, 0), 0) ?? 0, 'area', 'm')} m²</Figure>
        <Figure label="volume">{showNumber(shown.volume, 'area', 'm')} m³</Figure>
        <Figure label="from, to">{showNumber(shown.base, 'length', project.unit)} to {showNumber(shown.top, 'length', project.unit)}</Figure>
      </Section>}
      <button className="act w-full text-error" onClick={() => void deleteMasses([mass.id])}><Trash2 size={14} /> Delete mass</button>
    </>
  )
}

function MoveFields({ mass, move, ridge }: { mass: Mass; move: Move; ridge: number | null }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const edit = (label: string, change: () => ReturnType<typeof setPitch>) => makeEdit(`${label} of ${mass.name}`, change)
  switch (move.move) {
    case 'outline': {
      const { shape } = move
      if (shape.kind === 'rectangle') {
        const field = (key: 'width' | 'depth') => (num: Num) => edit(key, () => changeMove(scheme, mass, 'outline', (m) => (m.shape.kind === 'rectangle' ? { ...m, shape: { ...m.shape, [key]: num } } : m)))
        return <><NumField label="width" value={shape.width} onAccept={field('width')} /><NumField label="depth" value={shape.depth} onAccept={field('depth')} />
          <button className="mb-2 cursor-pointer text-[12px] text-ink2 underline" onClick={() => edit('outline', () => changeMove(scheme, mass, 'outline', (m) => ({ ...m, shape: { kind: 'polygon', corners: polygonOf(m.shape, numbers) } })))}>Free its corners</button></>
      }
      const points = corners(shape, numbers)
      const set = (i: number, key: 'x' | 'y') => (num: Num) => edit('corner', () => changeMove(scheme, mass, 'outline', (m) => (m.shape.kind === 'polygon' ? { ...m, shape: { ...m.shape, corners: m.shape.corners.map((c, k) => (k === i ? { ...c, [key]: num } : c)) } } : m)))
      return (
        <details className="mb-1.5 rounded-md border border-line px-2.5 py-1.5" open={points.length <= 4}>
          <summary className="cursor-pointer text-ink2">outline, {points.length} corners{outlineFault(points) ? ', faulty' : ''}</summary>
          <div className="mt-1.5">{shape.corners.map((c, i) => <div key={c.id} className="grid grid-cols-2 gap-1.5"><NumField label={`${i + 1} x`} value={c.x} onAccept={set(i, 'x')} /><NumField label="y" value={c.y} onAccept={set(i, 'y')} /></div>)}</div>
        </details>)
    }
    case 'raise': {
      const height = (num: Num) => changeMove(scheme, mass, 'raise', (m) => ({ ...m, height: num }))
      return <NumField label={mass.recipe.some((m) => m.move === 'pitch') ? 'eaves height' : 'height'} value={move.height} onAccept={(num) => edit('height', () => height(num))} onTry={(num) => tryEdit(num === null ? null : () => height(num))} />
    }
    case 'pitch': return (
      <div className="mt-1 mb-1.5 rounded-md border border-line p-2">
        <NumField label="roof angle" quantity="angle" value={move.angle} onAccept={(angle) => edit('roof angle', () => setPitch(scheme, mass, () => move.id, { angle, direction: move.direction }))} />
        <NumField label="ridge direction" quantity="angle" value={move.direction} onAccept={(direction) => edit('ridge direction', () => setPitch(scheme, mass, () => move.id, { angle: move.angle, direction }))} />
        {ridge !== null && <Figure label="ridge height"><span data-figure="ridge">{showNumber(ridge, 'length', project.unit)} {project.unit}</span></Figure>}
        <button className="mt-1.5 cursor-pointer text-[12px] text-ink2 underline" onClick={() => edit('pitch', () => setPitch(scheme, mass, () => move.id, null))}>Take the pitch off</button>
      </div>)
    case 'join': return (
      <div className="row"><span><span className="text-ink2">joined: </span>{move.name}</span>
        <button className="cursor-pointer text-[12px] text-ink2 underline" onClick={() => edit('join', () => ({ edit: 'mass.change', scheme: scheme.id, id: mass.id, set: { recipe: mass.recipe.map((m) => (m.id === move.id ? { ...m, on: !m.on } : m)) } }))}>{move.on ? 'Switch off' : 'Switch on'}</button></div>)
  }
}
