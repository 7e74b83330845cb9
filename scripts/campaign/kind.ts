/** A campaign: an attack on the whole application, so many times; gives lines with its figures, or throws with what did not hold. */
export interface Campaign {
  says: string
  run(times: number, tell: (line: string) => void): Promise<string[]>
}
