import { appendFile, rename, stat } from 'node:fs/promises'

/** bytes of a file, which is put aside as `<name>.old` when it has them */
const LARGEST = 10 * 1024 * 1024
/** bytes of lines that wait to be written; what comes beyond them is left out, and counted */
const MOST_WAITING = 1024 * 1024
/** ms after a failure until it is tried again */
const PAUSE = 10_000

/**
 * Lines of a log in a file of its own. Where they cannot be written, as on a full disk, they are left out until they can be; whoever logs
 * never waits, and never fails.
 */
export class LogFile {
  private waiting: string[] = []
  private waitingBytes = 0
  private leftOut = 0
  private size: number | null = null
  private blockedUntil = 0
  private writing: Promise<void> | null = null
  constructor(
    private readonly file: string,
    private readonly largest = LARGEST,
    private readonly pause = PAUSE,
  ) {}

  write(line: string): void {
    if (this.waitingBytes + line.length > MOST_WAITING) {
      this.leftOut++
      return
    }
    this.waiting.push(line)
    this.waitingBytes += line.length
    if (Date.now() >= this.blockedUntil) this.writing ??= this.writeAll().finally(() => (this.writing = null))
  }

  /** Ends when what waits is written, or cannot be. */
  async flushed(): Promise<void> {
    await this.writing
  }

  private async writeAll(): Promise<void> {
    while (this.waiting.length) {
      if (this.leftOut)
        this.waiting.push(
          `${JSON.stringify({ level: 40, time: Date.now(), msg: `${this.leftOut} lines were left out: they could not be written` })}\n`,
        )
      const text = this.waiting.join('')
      try {
        this.size ??= await stat(this.file).then(
          (s) => s.size,
          () => 0,
        )
        if (this.size > 0 && this.size + text.length > this.largest) {
          await rename(this.file, `${this.file}.old`)
          this.size = 0
        }
        this.waiting = []
        this.waitingBytes = 0
        const wereLeftOut = this.leftOut
        this.leftOut = 0
        await appendFile(this.file, text).catch((e: unknown) => {
          this.leftOut += wereLeftOut + text.split('\n').length - 1
          throw e
        })
        this.size += Buffer.byteLength(text)
      } catch {
        this.size = null
        this.blockedUntil = Date.now() + this.pause
        return
      }
    }
  }
}
