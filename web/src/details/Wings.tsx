import { Plus, X } from 'lucide-react'
import { addWing, removeWing, wingAround } from '@geotome/core/groundwork'
import { inOrder, showQuantity, type Wing } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { usePickedMasses, useProject, useStudy, useUnit } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { toolTaken } from '../app/view-slice'
import { AddByName } from '../common/AddByName'
import { NameField, Section } from '../common/fields'
import { useAsk } from '../verbs/use-now'

/** Wings: parts of the building in plan. A mass belongs to one, so that what spans several counts once. */
export function Wings() {
  const { scheme } = useProject()
  const study = useStudy()
  const wings = inOrder(scheme.wings)
  return (
    <Section title="Wings">
      {wings.map((w) => (
        <WingFields key={w.id} wing={w} area={study?.ledger.wings.find((x) => x.id === w.id)?.total ?? 0} />
      ))}
      {wings.length > 0 && (
        <p className="mb-1.5 px-1 text-[11px] text-ink2">
          A mass counts in the wing that it is told, or else in the one whose outline holds most of its plan.
        </p>
      )}
      <AddByName
        label="new wing's name"
        placeholder="a wing's name"
        add={(name) => makeEdit(`wing ${name}`, addWing(scheme, crypto.randomUUID(), name))}
        button={{ show: <Plus size={14} />, className: 'btn btn-sm h-8 px-2', label: 'Add wing' }}
      />
    </Section>
  )
}

function WingFields({ wing, area }: { wing: Wing; area: number }) {
  const { scheme } = useProject()
  const study = useStudy()
  const masses = usePickedMasses()
  const dispatch = useAppDispatch()
  const ask = useAsk()
  const set = (label: string, fields: Partial<Wing>) =>
    makeEdit(`${label} of ${wing.name}`, { edit: 'wing.change', scheme: scheme.id, id: wing.id, set: fields })
  const unit = useUnit()
  /** The rectangle about all masses that belong to it, as its outline. */
  const around = () => {
    const [ox, oy] = study?.origin ?? [0, 0]
    const own = masses.length
      ? masses.map((m) => m.id)
      : Object.values(scheme.masses)
          .filter((m) => m.wing === wing.id)
          .map((m) => m.id)
    const points = (study?.masses ?? [])
      .filter((m) => own.includes(m.id))
      .flatMap((m) => m.outline.map(([x, y]): Vec2 => [x + ox, y + oy]))
    makeEdit(`outline of ${wing.name}`, () => wingAround(scheme, wing.id, points))
  }
  return (
    <div className="mb-1.5 rounded-md border border-line p-1.5" data-wing={wing.name}>
      <div className="flex items-start gap-1">
        <div className="min-w-0 flex-1 [&>label]:mb-0">
          <NameField
            label={showQuantity(area, 'area', unit)}
            value={wing.name}
            onAccept={(name) => set('name', { name })}
          />
        </div>
        <button
          className="cursor-pointer px-1 pt-2.5 text-ink2"
          aria-label={`Remove wing ${wing.name}`}
          onClick={() => makeEdit(`remove wing ${wing.name}`, removeWing(scheme, wing.id))}
        >
          <X size={13} />
        </button>
      </div>
      <p className="px-1 pt-1 text-[11px] text-ink2">
        {wing.outline ? `outline of ${wing.outline.length} corners` : 'no outline: masses are told'} ·{' '}
        <button className="cursor-pointer underline" title="The rectangle about its masses" onClick={around}>
          {wing.outline ? 'anew' : 'outline'} about its masses
        </button>{' '}
        ·{' '}
        <button
          className="cursor-pointer underline"
          onClick={() => ask().go('form', () => dispatch(toolTaken({ tool: 'polygon', becomes: 'wing', of: wing.id })))}
        >
          draw it
        </button>
      </p>
    </div>
  )
}
