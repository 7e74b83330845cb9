import { faceDrawn } from '../stage/spots'
import { studyWorker } from '../worker/client'
import { selectSchemeId } from './project-slice'
import { store } from './store'
import { faceSeen, picked, spotsPicked } from './view-slice'

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
    if (mass && !now) {
      // A face that is gone (an undo, a move before it) is picked no longer; its mass is.
      store.dispatch(picked(state.view.picked))
      return
    }
    if (now && now.name !== face) {
      // It was pulled as a whole: what it has become is picked.
      store.dispatch(spotsPicked(spots.map((s) => (s === first ? { ...s, faces: [now.name] } : s))))
      return
    }
    studyWorker.faceAt(scheme, first.mass, face).then(
      (seen) => asked === key && store.dispatch(faceSeen(seen)),
      // What could not be told is asked again with the next result.
      () => asked === key && store.dispatch(faceSeen(null)),
    )
  })
}
