/** Ground that never was: a quay edge at the south, a bank behind it, and land that rises gently to the north and east. m from the project's zero. */
export function madeUpGround(x: number, y: number): number {
  const bank = 1.1 / (1 + Math.exp(-(y + 2) / 3)) - 1.0
  const rise = Math.max(0, y + 10) * 0.012 + Math.max(0, x - 40) * 0.006
  return bank + rise + 0.12 * Math.sin(x / 17) * Math.cos(y / 13)
}
