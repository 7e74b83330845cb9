import { valibotResolver } from '@hookform/resolvers/valibot'
import { useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import * as v from 'valibot'
import { areaSign, blankProject, NameSchema, readTyped, Refusal, UnitSchema, type Unit } from '@geotome/core/project'
import { api, Problem } from '../app/api'
import { store } from '../app/store'
import { dialogOpened, groundShown, toolTaken } from '../app/view-slice'
import { Dialog } from '../common/Dialog'
import { useExchange } from '../common/use-exchange'
import { atDesk } from '../desks/after-desk'
import { tellFault } from '../common/tell'

interface Beginning {
  id: string
  label: string
  say: string
  desk: string
  then: () => void
}
/** What a new project begins with: where one lands, and what is taken up there. */
const BEGINNINGS: Beginning[] = [
  { id: 'blank', label: 'A blank sheet', say: 'A storey at zero; draw the first mass', desk: 'form', then: () => {} },
  {
    id: 'site',
    label: 'A site',
    say: 'Draw its boundary, type it, or read it from a file',
    desk: 'ground',
    then: () => {
      store.dispatch(groundShown('site'))
      store.dispatch(toolTaken({ tool: 'polygon', becomes: 'site' }))
    },
  },
  {
    id: 'picture',
    label: 'A picture',
    say: 'A sketch, scan or photograph to calibrate and trace',
    desk: 'ground',
    then: () => void store.dispatch(groundShown('pictures')),
  },
  {
    id: 'file',
    label: 'A file with forms',
    say: 'Bodies from IFC, OBJ or GLB',
    desk: 'form',
    then: () => void store.dispatch(dialogOpened('import')),
  },
]

const FormSchema = v.object({
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'A project needs a name.'), NameSchema),
  unit: UnitSchema,
  siteArea: v.pipe(
    v.string(),
    v.check(
      (text) => text.trim() === '' || (areaFrom(text, 'm') ?? 0) > 0,
      'Type an area above zero, for example 4200, or leave it empty.',
    ),
  ),
  begins: v.string(),
})

export function NewProject({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const starters = useExchange()?.starters ?? []
  const beginnings = [...BEGINNINGS, ...starters.map((s): Beginning => ({ ...s, desk: 'slice', then: () => {} }))]
  const {
    register,
    handleSubmit,
    watch,
    formState: { errors, isSubmitting },
  } = useForm({
    defaultValues: { name: '', unit: 'm' as Unit, siteArea: '', begins: 'blank' },
    resolver: valibotResolver(FormSchema),
  })
  const accept = handleSubmit(async ({ name, unit, siteArea, begins }) => {
    const begin = beginnings.find((b) => b.id === begins)
    try {
      const { id } = await api.create({
        name,
        unit,
        siteArea: siteArea.trim() ? areaFrom(siteArea, unit) : null,
        starter: starters.some((s) => s.id === begins) ? begins : null,
      })
      atDesk(begin?.desk ?? 'form', (desk) => void navigate(`/p/${id}/${desk}`), begin?.then ?? (() => {}))
    } catch (e) {
      tellFault(e instanceof Problem ? e.message : String(e))
    }
  })
  const [begins, unit] = watch(['begins', 'unit'])
  const fault = (which: 'name' | 'siteArea') =>
    errors[which] && (
      <p role="alert" className="-mt-1 mb-2 text-right text-[12px] text-error">
        {errors[which]?.message}
      </p>
    )
  return (
    <Dialog
      title="New project"
      wide
      onClose={onClose}
      onAccept={() => void (isSubmitting || accept())}
      accept="Make project"
    >
      <div className="grid grid-cols-[260px_1fr] gap-6">
        <div>
          <label className="mb-2 flex items-center justify-between gap-3">
            name
            <input autoFocus className="input input-sm w-44" {...register('name')} aria-invalid={!!errors.name} />
          </label>
          {fault('name')}
          <label className="mb-2 flex items-center justify-between gap-3">
            unit
            <select className="select select-sm w-44" {...register('unit')}>
              <option value="m">metres</option>
              <option value="mm">millimetres</option>
              <option value="ft">feet and inches</option>
            </select>
          </label>
          <label className="mb-2 flex items-center justify-between gap-3">
            site area, {areaSign(unit)}
            <input
              className="input input-sm w-44"
              placeholder="not known yet"
              {...register('siteArea')}
              aria-invalid={!!errors.siteArea}
            />
          </label>
          {fault('siteArea')}
        </div>
        <fieldset>
          <legend className="eyebrow mb-1.5">Begin with</legend>
          <div className="grid grid-cols-2 gap-1.5">
            {beginnings.map((b) => (
              <label
                key={b.id}
                className={`cursor-pointer rounded-md border px-2.5 py-1.5 ${begins === b.id ? 'border-ink bg-field' : 'border-line hover:border-ink3'}`}
              >
                <span className="flex items-center gap-2 font-semibold">
                  <input type="radio" className="radio radio-xs" value={b.id} {...register('begins')} />
                  {b.label}
                </span>
                <span className="block pl-6 text-[11.5px] leading-4 text-ink2">{b.say}</span>
              </label>
            ))}
          </div>
        </fieldset>
      </div>
    </Dialog>
  )
}

/** A typed area: grouping commas and the unit may stand, arithmetic is for the project's own fields. */
/** What is typed as an area, m2: in the project's unit unless one stands behind it; null for what is none. */
function areaFrom(text: string, unit: Unit): number | null {
  const blank = blankProject(() => 'new', 'New', unit, null)
  try {
    return readTyped(text.replace(/(\d),(?=\d{3}(\D|$))/g, '$1'), 'area', blank, null).value
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return null
  }
}
