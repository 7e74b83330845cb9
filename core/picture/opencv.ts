import opencv from '@techstark/opencv-js'

/** OpenCV, when its WebAssembly is ready. It is never handed out by itself: it has a `then`, which would be called by whoever waits for it. */
export function openCv(): Promise<{ cv: typeof opencv }> {
  const cv = opencv as typeof opencv & { onRuntimeInitialized: () => void }
  return new Promise((done) => {
    if ((cv as { Mat?: unknown }).Mat) done({ cv })
    else cv.onRuntimeInitialized = () => done({ cv })
  })
}
