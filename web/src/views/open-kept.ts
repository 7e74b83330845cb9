import type { KeptView } from '@geotome/core/project'
import type { AppDispatch } from '../app/store'
import { store } from '../app/store'
import { keptOpened } from '../app/view-slice'
import type { View } from '../stage/camera'
import { setView } from '../stage/views'
import type { Now } from '../verbs/kind'

/** Opens a kept view: at the Fabric desk where it shows fabric, at the Slice desk where it is cut, at the Form desk otherwise. */
export function openKept(view: KeptView, dispatch: AppDispatch, go: Now['go']): void {
  go(view.shows.fabric ? 'fabric' : view.blade ? 'slice' : 'form', () => {
    dispatch(keptOpened(view))
    // Panes are measured once they stand.
    requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        const width = document.querySelector<HTMLElement>(`[data-pane="${view.pane}"]`)?.clientWidth ?? 1000
        setView(view.pane, cameraOf(view, width))
      }),
    )
  })
}

/** The camera of a kept view in a pane so many pixels wide. */
export function cameraOf({ camera }: KeptView, width: number): View {
  const [ox, oy] = store.getState().view.study?.origin ?? [0, 0]
  return {
    target: [camera.target[0] - ox, camera.target[1] - oy, camera.target[2]],
    azimuth: camera.azimuth,
    elevation: camera.elevation,
    scale: (camera.scale * width) / 1000,
  }
}
