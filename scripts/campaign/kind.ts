/** A campaign: an attack on the whole application, so many times; gives lines with its figures, or throws with what did not hold. */
export interface Campaign {
  says: string
  /** `patience`: how many times longer than on a quiet machine things may take */
  run(times: number, tell: (line: string) => void, patience: number): Promise<string[]>
}
