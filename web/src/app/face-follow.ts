import { studyWorker } from '../worker/client'
import { selectSchemeId } from './project-slice'
import { store } from './store'
import { faceSeen } from './view-slice'

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
    studyWorker.faceAt(scheme, first.mass, face).then(
      (seen) => asked === key && store.dispatch(faceSeen(seen)),
      // A face that is gone is picked no longer.
      () => asked === key && store.dispatch(faceSeen(null)),
    )
  })
}
