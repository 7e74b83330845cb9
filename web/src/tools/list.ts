import type { Tool } from './kind'
import { measureTool } from './measure'
import { outlineTool } from './outline'
import { uprightTool } from './upright'

/** What the pointer can do on the stage besides picking. The state of a tool is its own affair. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export const TOOLS: readonly Tool<any>[] = [
  outlineTool('rectangle'),
  outlineTool('polygon'),
  outlineTool('circle'),
  uprightTool,
  measureTool,
]
