import { Trash2 } from 'lucide-react'
import { changeRecipe, takeApart } from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import { areaSign, inOrder, showNumber, showVolume, type Mass, type Num } from '@geotome/core/project'
import { useProject, useStudy, useUses } from '../app/hooks'
import { makeEdit, tryEdit } from '../app/session'
import { ChoiceField, Figure, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { useAppDispatch } from '../app/store'
import { picked } from '../app/view-slice'
import { deleteMasses } from '../verbs/delete-masses'
import { OnSite } from '../ground/FitFigures'
import { Arrange } from './Arrange'
import { Appearance } from './Appearance'
import { RecipeFields } from './RecipeFields'
import { SpotDetails } from './SpotDetails'
import { PlateChanges } from './PlateChanges'
import { StoreyChecks } from './StoreyChecks'
import { StoreyUses } from './StoreyUses'

/** A picked mass: its use, base, numbers, storeys, and its recipe move by move. */
export function MassDetails({ mass }: { mass: Mass }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const uses = useUses()
  const shown = study?.masses.find((m) => m.id === mass.id)
  const set = (label: string, fields: Partial<Mass>) =>
    makeEdit(`${label} of ${mass.name}`, { edit: 'mass.change', scheme: scheme.id, id: mass.id, set: fields })
  const levels = levelHeights(project, scheme)
  const storeys = levels.filter((l) => l.kind === 'storey')
  const takes = (id: string) => mass.takes.levels.includes(id) === (mass.takes.kind === 'only')
  const toggle = (id: string) =>
    set('storeys', {
      takes: {
        ...mass.takes,
        levels: mass.takes.levels.includes(id) ? mass.takes.levels.filter((l) => l !== id) : [...mass.takes.levels, id],
      },
    })
  const within = shown ? storeys.filter((l) => l.height < shown.top - 1e-5 && l.height > shown.base - 1e-5) : storeys
  const place = (key: 'x' | 'y' | 'turn') => (num: Num) => set('place', { place: { ...mass.place, [key]: num } })
  return (
    <>
      <SpotDetails />
      <p className="eyebrow mb-2">Mass</p>
      <NameField label="name" value={mass.name} onAccept={(name) => set('name', { name })} />
      {mass.group && <Figure label="in the group">{mass.group}</Figure>}
      <ChoiceField
        label="it is"
        value={mass.context ? 'context' : (mass.gives ?? mass.projecting ?? 'mass')}
        options={[
          { value: 'mass', label: 'a mass of the scheme' },
          { value: 'void', label: 'a void: floor is taken off' },
          { value: 'core', label: 'a core: gross, not net' },
          { value: 'apart', label: 'projecting, listed apart' },
          { value: 'covers', label: 'projecting, covers the site' },
          { value: 'context', label: 'context, not counted' },
        ]}
        onChange={(as) =>
          set('role', {
            context: as === 'context',
            projecting: as === 'apart' || as === 'covers' ? as : null,
            gives: as === 'void' || as === 'core' ? as : null,
          })
        }
      />
      <ChoiceField
        label="use"
        value={mass.use}
        options={uses.map((u) => ({ value: u.id, label: u.name }))}
        onChange={(use) => set('use', { use })}
      />
      <ChoiceField
        label="stands on"
        value={mass.base.level}
        options={[...levels]
          .reverse()
          .map((l) => ({ value: l.id, label: `${l.name}  ${showNumber(l.height, 'length', project)}` }))}
        onChange={(level) => set('base', { base: { ...mass.base, level } })}
      />
      <NumField
        label="above it by"
        value={mass.base.above}
        onAccept={(above) => set('base', { base: { ...mass.base, above } })}
      />
      {Object.keys(scheme.wings).length > 0 && (
        <ChoiceField
          label="wing"
          value={mass.wing ?? ''}
          options={[
            {
              value: '',
              label: `by its plan${study?.wingOf[mass.id] ? `: ${scheme.wings[study.wingOf[mass.id] ?? '']?.name ?? ''}` : ''}`,
            },
            ...inOrder(scheme.wings).map((w) => ({ value: w.id, label: w.name })),
          ]}
          onChange={(wing) => set('wing', { wing: wing || null })}
        />
      )}
      <div className="mt-3" />
      <OnSite mass={mass.id} />
      <Section title="Recipe">
        <RecipeFields
          recipe={mass.recipe}
          change={(label, next) => makeEdit(`${label} of ${mass.name}`, () => changeRecipe(scheme, mass, next))}
          attempt={(next) => tryEdit(next && (() => changeRecipe(scheme, mass, next)))}
          apart={(join) => {
            if (
              makeEdit(`take ${join.name} off ${mass.name}`, () =>
                takeApart(project, scheme, () => crypto.randomUUID(), mass.id, join.id),
              )
            )
              dispatch(picked({ kind: 'nothing' }))
          }}
        />
      </Section>
      <Section title="Place">
        <NumField label="east" value={mass.place.x} onAccept={place('x')} />
        <NumField label="north" value={mass.place.y} onAccept={place('y')} />
        <NumField
          label="turned by"
          quantity="angle"
          value={mass.place.turn}
          hint="Counter-clockwise."
          onAccept={place('turn')}
        />
      </Section>
      <Arrange ids={[mass.id]} />
      <Section title="Storeys it takes">
        <StoreyChecks label="storeys it takes" storeys={within} isIn={takes} onToggle={toggle} />
      </Section>
      <StoreyUses mass={mass} storeys={within} set={set} />
      <PlateChanges mass={mass} />
      <Appearance mass={mass} faces={shown?.faces ?? []} set={set} />
      {shown && (
        <Section title="Figures">
          <Figure label="floor, all storeys">
            {showNumber(
              study?.floors.reduce(
                (s, f) => s + f.plates.filter((p) => p.mass === mass.id).reduce((a, p) => a + p.area, 0),
                0,
              ) ?? 0,
              'area',
              project,
            )}{' '}
            {areaSign(project)}
          </Figure>
          <Figure label="volume">{showVolume(shown.volume, project)}</Figure>
          <Figure label="from, to">
            {showNumber(shown.base, 'length', project)} to {showNumber(shown.top, 'length', project)}
          </Figure>
        </Section>
      )}
      <button className="btn btn-sm w-full text-error" onClick={() => void deleteMasses([mass.id])}>
        <Trash2 size={14} /> Delete mass
      </button>
    </>
  )
}
