import { deflateSync } from 'node:zlib'

/** A grey picture that is drawn into: the sketches, sections and scans of the demo and of the tests are made by small programs. */
export class Sheet {
  readonly grey: Uint8Array
  constructor(
    readonly width: number,
    readonly height: number,
    paper = 246,
  ) {
    this.grey = new Uint8Array(width * height).fill(paper)
  }

  /** A line of ink between two points, px. */
  line(a: readonly number[], b: readonly number[], width: number, ink = 30): this {
    const [ax, ay, bx, by] = [a[0] ?? 0, a[1] ?? 0, b[0] ?? 0, b[1] ?? 0]
    const [dx, dy] = [bx - ax, by - ay]
    const r = width / 2 + 1
    for (
      let y = Math.max(0, Math.floor(Math.min(ay, by) - r));
      y <= Math.min(this.height - 1, Math.max(ay, by) + r);
      y++
    ) {
      for (
        let x = Math.max(0, Math.floor(Math.min(ax, bx) - r));
        x <= Math.min(this.width - 1, Math.max(ax, bx) + r);
        x++
      ) {
        const t = Math.min(1, Math.max(0, ((x + 0.5 - ax) * dx + (y + 0.5 - ay) * dy) / (dx * dx + dy * dy || 1)))
        const off = Math.hypot(x + 0.5 - ax - t * dx, y + 0.5 - ay - t * dy)
        const cover = Math.min(1, Math.max(0, width / 2 + 0.5 - off))
        const i = y * this.width + x
        if (cover > 0)
          this.grey[i] = Math.min(this.grey[i] ?? 255, Math.round((1 - cover) * (this.grey[i] ?? 255) + cover * ink))
      }
    }
    return this
  }

  loop(points: readonly (readonly number[])[], width: number, ink = 30): this {
    points.forEach((p, i) => this.line(p, points[(i + 1) % points.length] ?? p, width, ink))
    return this
  }

  circle(centre: readonly number[], r: number, width: number, ink = 30): this {
    return this.loop(
      Array.from({ length: 180 }, (_, i) => [
        (centre[0] ?? 0) + r * Math.cos((i * Math.PI) / 90),
        (centre[1] ?? 0) + r * Math.sin((i * Math.PI) / 90),
      ]),
      width,
      ink,
    )
  }

  fill(x0: number, y0: number, x1: number, y1: number, ink: number): this {
    for (let y = Math.max(0, Math.round(y0)); y < Math.min(this.height, y1); y++)
      this.grey.fill(
        ink,
        y * this.width + Math.max(0, Math.round(x0)),
        y * this.width + Math.min(this.width, Math.round(x1)),
      )
    return this
  }

  /** Specks of dust and ink, the same on every run. */
  specks(count: number, seed = 7): this {
    const next = chance(seed)
    for (let n = 0; n < count; n++) {
      const [x, y, r, ink] = [next() * this.width, next() * this.height, 0.6 + next() * 1.6, 40 + next() * 120]
      this.line([x, y], [x + 0.1, y], r * 2, ink)
    }
    return this
  }

  /** Shade that grows over the sheet, and grain. */
  shade(most: number, grain: number, seed = 3): this {
    const next = chance(seed)
    for (let y = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++) {
        const i = y * this.width + x
        this.grey[i] = Math.max(
          0,
          Math.min(255, (this.grey[i] ?? 0) - (most * (x + y)) / (this.width + this.height) + (next() - 0.5) * grain),
        )
      }
    return this
  }

  rgba(): { width: number; height: number; data: Uint8ClampedArray } {
    const data = new Uint8ClampedArray(this.width * this.height * 4)
    this.grey.forEach((g, i) => {
      data[i * 4] = g
      data[i * 4 + 1] = g
      data[i * 4 + 2] = g
      data[i * 4 + 3] = 255
    })
    return { width: this.width, height: this.height, data }
  }

  /** The sheet as a PNG file. */
  png(): Uint8Array {
    const raw = new Uint8Array((this.width + 1) * this.height)
    for (let y = 0; y < this.height; y++)
      raw.set(this.grey.subarray(y * this.width, (y + 1) * this.width), y * (this.width + 1) + 1)
    const head = new Uint8Array(13)
    new DataView(head.buffer).setUint32(0, this.width)
    new DataView(head.buffer).setUint32(4, this.height)
    head.set([8, 0, 0, 0, 0], 8)
    return Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', head),
      chunk('IDAT', deflateSync(raw, { level: 9 })),
      chunk('IEND', new Uint8Array()),
    ])
  }
}

/** Numbers from 0 to 1 that look like chance and are the same on every run. */
export function chance(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

function chunk(kind: string, data: Uint8Array): Buffer {
  const out = Buffer.alloc(12 + data.length)
  out.writeUInt32BE(data.length, 0)
  out.write(kind, 4, 'latin1')
  out.set(data, 8)
  let crc = 0xffffffff
  for (const byte of out.subarray(4, 8 + data.length)) {
    crc ^= byte
    for (let k = 0; k < 8; k++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1
  }
  out.writeUInt32BE((crc ^ 0xffffffff) >>> 0, 8 + data.length)
  return out
}
