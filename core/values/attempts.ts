import { Refusal } from './refusal'

/** A thing that one node of the study computes something of: a mass, a floor, a part, a ground figure, a check. */
export interface StudyNode {
  /** what is computed of it, in words: 'body', 'floor', 'shape' */
  what: string
  id: string
  name: string
  level?: string
  masses?: string[]
  parts?: string[]
}

/** A node that threw: the reason, and what a person can do. */
export interface NodeFailure {
  node: StudyNode
  say: string
  remedy: string
}

/**
 * Runs the nodes of one study, so that one that throws is noted and replaced, and all others go on. `probe` is told of each node before it
 * runs; tests let it throw.
 */
export class Attempts {
  readonly failures: NodeFailure[] = []

  constructor(private readonly probe: ((node: StudyNode) => void) | null = null) {}

  /** The node's value, or `otherwise` of the failure where it throws. */
  run<T>(node: StudyNode, work: () => T, otherwise: (failure: NodeFailure) => T): T {
    try {
      this.probe?.(node)
      return work()
    } catch (e) {
      const failure = { node, ...reasonOf(e) }
      this.failures.push(failure)
      return otherwise(failure)
    }
  }

  /** The same where other code says of a failure: it is not noted here. */
  quiet<T>(node: StudyNode, work: () => T, otherwise: (failure: NodeFailure) => T): T {
    const { length } = this.failures
    return this.run(node, work, (failure) => {
      this.failures.length = length
      return otherwise(failure)
    })
  }

  /** Returns true when a node of a part failed. */
  hasFailed(part: string): boolean {
    return this.failures.some(({ node }) => node.parts?.includes(part))
  }

  /** Keeps a value that was computed without a failure; another one is computed anew next time, so that its finding stays. */
  keepIfWhole<T>(work: () => T, keep: (value: T) => void): T {
    const { length } = this.failures
    const value = work()
    if (this.failures.length === length) keep(value)
    return value
  }
}

/** Why something threw: what a refusal says, or that the computation failed. */
export function reasonOf(e: unknown): Pick<NodeFailure, 'say' | 'remedy'> {
  if (e instanceof Refusal) return { say: e.say, remedy: e.remedy }
  return { say: `The computation failed (${e instanceof Error ? e.message : String(e)}).`, remedy: '' }
}
