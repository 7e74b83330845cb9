import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { buildUpThickness } from '@geotome/core/fabric'
import { inOrder, nextOrder, numbersOf, type BuildUp } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { NameField, Section } from '../common/fields'
import { SortableList } from '../common/SortableList'
import { NumField } from '../common/NumField'

/** The build-ups with their layers, from outside to inside, or from the top down. */
export function BuildUps() {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const [open, setOpen] = useState<string | null>(null)
  return (
    <Section title="Build-ups">
      {inOrder(project.buildUps).map((b) => (
        <details
          key={b.id}
          className="border-b border-line py-1.5"
          open={open === b.id}
          onToggle={(e) => {
            if (e.currentTarget.open) setOpen(b.id)
            else if (open === b.id) setOpen(null)
          }}
        >
          <summary className="flex cursor-pointer justify-between">
            <span>
              {b.name} <span className="text-ink2">{b.for}</span>
            </span>
            <span className="font-semibold">{Math.round(buildUpThickness(b, numbers) * 1000)} mm</span>
          </summary>
          {open === b.id && <Layers buildUp={b} opened={setOpen} />}
        </details>
      ))}
    </Section>
  )
}

function Layers({ buildUp: b, opened }: { buildUp: BuildUp; opened: (id: string | null) => void }) {
  const { project } = useProject()
  const change = (set: Partial<BuildUp>) => makeEdit(`build-up ${b.name}`, { edit: 'build-up.change', id: b.id, set })
  const layers = (next: BuildUp['layers']) => change({ layers: next })
  const setLayer = (id: string, set: Partial<BuildUp['layers'][number]>) =>
    layers(b.layers.map((l) => (l.id === id ? { ...l, ...set } : l)))
  const used = Object.values(project.schemes).reduce(
    (n, s) => n + Object.values(s.parts).filter((p) => p.buildUp === b.id).length,
    0,
  )
  const copy = () => {
    const id = crypto.randomUUID()
    if (
      makeEdit(`copy ${b.name}`, {
        edit: 'build-up.add',
        thing: { ...b, id, name: `${b.name}, copy`, order: nextOrder(project.buildUps) },
      })
    )
      opened(id)
  }
  const move = (from: number, to: number) => {
    const next = [...b.layers]
    next.splice(to, 0, ...next.splice(from, 1))
    layers(next)
  }
  const [first, last] = b.for === 'wall' || b.for === 'parapet' ? ['outside', 'inside'] : ['top', 'underside']
  return (
    <div className="mt-1.5">
      <NameField label="name" value={b.name} onAccept={(name) => change({ name })} />
      <p className="px-1 text-[11px] text-ink2">{first}</p>
      <SortableList
        label={`Layers from the ${first} to the ${last}`}
        ids={b.layers.map((l) => l.id)}
        names={b.layers.map((l, i) => `layer ${i + 1}, ${l.name}`)}
        className="mb-1 flex items-start gap-1 rounded-md border border-line bg-panel p-1.5"
        onMove={move}
      >
        {(_, i) => {
          const l = b.layers[i]
          return (
            l && (
              <div className="min-w-0 flex-1">
                <div className="flex gap-1">
                  <Word label={`name of layer ${i + 1}`} value={l.name} onAccept={(name) => setLayer(l.id, { name })} />
                  <Word
                    label={`material of layer ${i + 1}`}
                    value={l.material}
                    onAccept={(material) => setLayer(l.id, { material })}
                  />
                </div>
                <div className="mt-1 flex items-start gap-1">
                  <div className="min-w-0 flex-1">
                    <NumField
                      compact
                      label={`thickness ${i + 1}`}
                      value={l.thickness}
                      onAccept={(thickness) => setLayer(l.id, { thickness })}
                    />
                  </div>
                  <button
                    className="cursor-pointer p-1 text-ink2 disabled:opacity-30"
                    disabled={b.layers.length === 1}
                    aria-label={`Remove layer ${i + 1}`}
                    onClick={() => layers(b.layers.filter((o) => o.id !== l.id))}
                  >
                    <X size={13} />
                  </button>
                </div>
              </div>
            )
          )
        }}
      </SortableList>
      <p className="px-1 pb-1.5 text-[11px] text-ink2">{last}</p>
      <div className="flex flex-wrap gap-x-4 gap-y-1 text-[12px] text-ink2">
        <button
          className="inline-flex cursor-pointer items-center gap-1 underline"
          onClick={() =>
            layers([...b.layers, { id: crypto.randomUUID(), name: 'layer', material: 'plaster', thickness: 0.015 }])
          }
        >
          <Plus size={12} /> Add a layer
        </button>
        <button className="cursor-pointer underline" onClick={copy}>
          Copy this build-up
        </button>
        {used === 0 ? (
          <button
            className="cursor-pointer underline"
            onClick={() => {
              if (makeEdit(`remove ${b.name}`, { edit: 'build-up.remove', id: b.id })) opened(null)
            }}
          >
            Remove it
          </button>
        ) : (
          <span>{used} parts are made of it</span>
        )}
      </div>
    </div>
  )
}

/** A short word that is changed in place. */
function Word({ label, value, onAccept }: { label: string; value: string; onAccept: (text: string) => boolean }) {
  const [typed, setTyped] = useState<string | null>(null)
  const accept = () => {
    const text = typed?.trim()
    if (text && text !== value) onAccept(text)
    setTyped(null)
  }
  return (
    <input
      aria-label={label}
      className="input input-xs w-0 min-w-0 flex-1 rounded text-[12px] font-semibold"
      value={typed ?? value}
      maxLength={120}
      autoComplete="off"
      onChange={(e) => setTyped(e.target.value)}
      onBlur={accept}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur()
        if (e.key === 'Escape') {
          setTyped(null)
          e.stopPropagation()
        }
      }}
    />
  )
}
