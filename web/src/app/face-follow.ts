import { faceDrawn } from '../stage/spots'
import { studyWorker } from '../worker/client'
import { selectSchemeId } from './project-slice'
import { store } from './store'
import { faceSeen, spotsPicked } from './view-slice'

/** Keeps what is known of the picked face in step with what is shown: asked of the worker once nothing is tried any more. */
export function startFaceFollow(): () => void {
  let asked = ''
  return store.subscribe(() => {
    const state = store.getState()
    const { spots, shown, study } = state.view
    const [first] = spots
    const [scheme, face] = [selectSchemeId(state), first?.kind === 'face' ? first.faces[0] : undefined]
    const key =
      first && face && scheme && study && shown.trying === null ? `${first.mass} ${face} ${scheme} ${shown.count}` : ''
    if (key === asked) return
    asked = key
    if (!key || !first || face === undefined || !scheme) return
    const mass = study?.masses.find((m) => m.id === first.mass)
    const now = mass && faceDrawn(mass, face)
    if (now && now.name !== face) {
      // It was pulled as a whole: what it has become is picked.
      store.dispatch(spotsPicked(spots.map((s) => (s === first ? { ...s, faces: [now.name] } : s))))
      return
    }
    studyWorker.faceAt(scheme, first.mass, face).then(
      (seen) => asked === key && store.dispatch(faceSeen(seen)),
      // A face that is gone is picked no longer.
      () => asked === key && store.dispatch(faceSeen(null)),
    )
  })
}
