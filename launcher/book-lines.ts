import { createHash } from 'node:crypto'
import { Transform, type TransformCallback } from 'node:stream'

const ROWS_BEGIN = Buffer.from('INSERT INTO')
const LINE_FEED = 10

/**
 * Passes a dump through and reckons two sums of it: of every byte, and of the lines that carry rows alone, which are
 * the same for two databases exactly when their rows are. Holds no more than a chunk.
 */
export class BookLines extends Transform {
  private readonly all = createHash('sha256')
  private readonly rows = createHash('sha256')
  /** What of the line has come so far decides which kind it is: null while that is open. */
  private carriesRows: boolean | null = null
  private begun = Buffer.alloc(0)

  override _transform(chunk: Buffer, _encoding: BufferEncoding, done: TransformCallback): void {
    this.all.update(chunk)
    for (let at = 0; at < chunk.length;) {
      const feed = chunk.indexOf(LINE_FEED, at)
      const end = feed < 0 ? chunk.length : feed + 1
      this.takePiece(chunk.subarray(at, end), feed >= 0)
      at = end
    }
    done(null, chunk)
  }

  sums(): { readonly all: string; readonly rows: string } {
    return { all: this.all.copy().digest('hex'), rows: this.rows.copy().digest('hex') }
  }

  private takePiece(piece: Buffer, lineEnds: boolean): void {
    if (this.carriesRows === null) {
      this.begun = Buffer.concat([this.begun, piece])
      if (this.begun.length >= ROWS_BEGIN.length || lineEnds)
        this.carriesRows = this.begun.subarray(0, ROWS_BEGIN.length).equals(ROWS_BEGIN)
      if (this.carriesRows) this.rows.update(this.begun)
    } else if (this.carriesRows) this.rows.update(piece)
    if (lineEnds || this.carriesRows !== null) this.begun = Buffer.alloc(0)
    if (lineEnds) this.carriesRows = null
  }
}
