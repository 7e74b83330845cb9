/** What the pointer and the keys do in a view, in the spine and on the bench, for the list of shortcuts. */
export const GESTURES: readonly (readonly [string, string])[] = [
  ['drag', 'turns the view'],
  ['Shift drag, right drag', 'moves the view'],
  ['wheel', 'zooms'],
  ['click again', 'goes to what lies behind'],
  ['Tab to a view, then arrows', 'turn it; with Shift, and in plan, move it'],
  ['plus, minus', 'zoom that view'],
  ['double click in an elevation', 'a level at that height'],
  ['up, down in the spine', 'next level'],
  ['Shift click a storey, masses picked', 'what is done with them acts on it'],
  ['Alt click', 'picks the face under the pointer'],
  ['arrows on the bench', 'move the last point by a pixel; with Shift by a tenth'],
]
