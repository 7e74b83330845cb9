import type { WayKind } from './kind'

export interface OnceWay {
  way: 'once'
}

/** Where it stands, and nowhere else in plan: for what is repeated up the storeys only. */
export const once: WayKind<OnceWay> = {
  way: 'once',
  called: 'where it stands',
  fields: {},
  starts: () => ({}),
  places: () => [{ key: '1', nth: 0, step: { by: [0, 0] } }],
}
