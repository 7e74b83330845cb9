import { useCallback, type ComponentType } from 'react'
import { useAppDispatch, useAppSelector } from '../app/store'
import { dialogOpened, type OpenDialog } from '../app/view-slice'
import { ExportDialog } from './ExportDialog'
import { Find } from './Find'
import { ImportDialog } from './ImportDialog'
import { RestorePoints } from './RestorePoints'
import { Shortcuts } from './Shortcuts'

const DIALOGS: Record<NonNullable<OpenDialog>, ComponentType<{ onClose: () => void }>> = {
  find: Find,
  export: ExportDialog,
  import: ImportDialog,
  shortcuts: Shortcuts,
  'restore-points': RestorePoints,
}

/** The dialog that is open over the desk. */
export function OpenDialogs() {
  const dispatch = useAppDispatch()
  const which = useAppSelector((s) => s.view.dialog)
  const close = useCallback(() => void dispatch(dialogOpened(null)), [dispatch])
  if (!which) return null
  const Shown = DIALOGS[which]
  return <Shown onClose={close} />
}
