import { makeEdit } from '../app/session'
import { PointFields } from './PointFields'
import { labelled, type PanelOf, type Picking } from './tasks/kind'

/** What of the picture is shown: two corners; nothing of it is lost. */
export function CropPanel({ picture: p, state: { points }, hint, send }: PanelOf<Picking>) {
  return (
    <>
      <p className="mb-2 text-[12px] text-ink2" role="status" data-hint>
        {hint}
      </p>
      <PointFields points={points} count={2} onChange={(all) => send({ kind: 'change', set: { points: all } })} />
      <button
        className="btn btn-sm btn-primary mb-1.5 w-full"
        disabled={points.length < 2 || p.locked}
        onClick={() => send({ kind: 'accept' })}
      >
        Crop
      </button>
      <button
        className="btn btn-sm w-full"
        disabled={!p.crop || p.locked}
        onClick={() => makeEdit(labelled('all of', p), { edit: 'picture.change', id: p.id, set: { crop: null } })}
      >
        Show all of it
      </button>
    </>
  )
}
