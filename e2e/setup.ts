import { App } from './app'

/** One application for all tests but those that kill it. */
export default async function setup(): Promise<() => Promise<void>> {
  const app = new App(4191)
  await app.start()
  return () => app.stop()
}
