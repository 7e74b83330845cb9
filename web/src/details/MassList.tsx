import { useNavigate } from 'react-router'
import { inOrder, showQuantity } from '@geotome/core/project'
import { useProject, useStudy } from '../app/hooks'
import { useAppDispatch } from '../app/store'
import { picked, toolTaken } from '../app/view-slice'

/** Every mass by name, for the keyboard and for those who do not see the stage. */
export function MassList() {
  const { project, scheme } = useProject()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const study = useStudy()
  if (!study) return null
  if (study.masses.length === 0)
    return (
      <div className="mb-4 rounded-md border border-line bg-field p-3 text-ink2">
        <p className="mb-2.5">
          Nothing is drawn yet. Set the levels in the spine first, or begin with a form: click two corners in the plan,
          or type them.
        </p>
        <button
          className="btn btn-sm btn-primary w-full"
          onClick={() => {
            void navigate('../form', { relative: 'path' })
            setTimeout(() => dispatch(toolTaken({ tool: 'rectangle', becomes: 'mass' })))
          }}
        >
          Draw a rectangle
        </button>
      </div>
    )
  return (
    <section className="mb-4">
      <h3 className="eyebrow mb-1.5">Masses</h3>
      <ul>
        {study.masses
          .filter((m) => !m.grown)
          .map((m) => (
            <li key={m.id}>
              <button
                className="flex w-full cursor-pointer justify-between rounded px-1.5 py-1 text-left hover:bg-field"
                onClick={() => dispatch(picked({ kind: 'mass', ids: [m.id] }))}
              >
                <span>{m.name}</span>
                <span className="text-ink2">{showQuantity(m.top - m.base, 'length', project)} high</span>
              </button>
            </li>
          ))}
      </ul>
      {Object.keys(scheme.repeats).length > 0 && (
        <>
          <h3 className="eyebrow mt-3 mb-1.5">Repeats</h3>
          <ul>
            {inOrder(scheme.repeats).map((r) => (
              <li key={r.id}>
                <button
                  className="flex w-full cursor-pointer justify-between rounded px-1.5 py-1 text-left hover:bg-field"
                  onClick={() => dispatch(picked({ kind: 'repeat', ids: [r.id], one: null }))}
                >
                  <span>{r.name}</span>
                  <span className="text-ink2">
                    {study.masses.filter((m) => m.grown?.by === 'repeat' && m.grown.id === r.id).length} more
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {Object.keys(scheme.rules).length > 0 && (
        <>
          <h3 className="eyebrow mt-3 mb-1.5">Rules</h3>
          <ul>
            {inOrder(scheme.rules).map((r) => (
              <li key={r.id}>
                <button
                  className="flex w-full cursor-pointer justify-between rounded px-1.5 py-1 text-left hover:bg-field"
                  onClick={() => dispatch(picked({ kind: 'rule', ids: [r.id], one: null }))}
                >
                  <span>{r.name}</span>
                  <span className="text-ink2">
                    {r.frozen
                      ? 'frozen'
                      : `${study.masses.filter((m) => m.grown?.by === 'rule' && m.grown.id === r.id).length} bodies`}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}
