import { useEffect } from 'react'
import { addPicture } from './add-picture'

/** Pictures dropped or pasted anywhere on the page are taken into the project. */
export function usePictureDrop(): void {
  useEffect(() => {
    const over = (e: DragEvent) => {
      if (e.dataTransfer?.types.includes('Files')) e.preventDefault()
    }
    const drop = (e: DragEvent) => {
      const files = [...(e.dataTransfer?.files ?? [])]
      if (files.length) {
        e.preventDefault()
        void each(files)
      }
    }
    const paste = (e: ClipboardEvent) => {
      const files = [...(e.clipboardData?.files ?? [])]
      if (files.length && !(e.target as HTMLElement).matches('input, textarea')) {
        e.preventDefault()
        void each(files)
      }
    }
    window.addEventListener('dragover', over)
    window.addEventListener('drop', drop)
    window.addEventListener('paste', paste)
    return () => {
      window.removeEventListener('dragover', over)
      window.removeEventListener('drop', drop)
      window.removeEventListener('paste', paste)
    }
  }, [])
}

async function each(files: File[]): Promise<void> {
  for (const file of files) await addPicture(file)
}
