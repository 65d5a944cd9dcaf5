import { expose, transfer } from 'comlink';
import { readFilm, type Film, type FilmAnswer, type FilmClock } from '@kevro/core';
import { ALL_FORMATS, BlobSource, CanvasSink, Input } from 'mediabunny';

/** Of a picture so much is enough to follow a bar within a twentieth of a degree, and a minute of it fits into memory. */
const FILM_WIDE = 320;
/** More pictures a second tell no more. */
const MOST_A_SECOND = 60;
/** Longer films are read up to here, s of true time. */
const LONGEST_FILM = 90;

/** What came of a film: the answer, and the first and last picture of it to be shown. */
export interface FilmFound {
  answer: FilmAnswer;
  width: number;
  height: number;
  pictures: ImageBitmap[];
}

/** The size at which a film is read: every side is even and at least 2. */
function sizeOf(width: number, height: number): { width: number; height: number } {
  const scale = Math.min(1, FILM_WIDE / Math.max(width, height, 1));
  const even = (side: number): number => Math.max(2, 2 * Math.round((side * scale) / 2));
  return { width: even(width), height: even(height) };
}
/** The greys of a picture, by how bright each colour is seen (ITU-R BT.601). */
function greyOf({ data }: ImageData): Uint8Array {
  const grey = new Uint8Array(data.length / 4);
  for (let p = 0; p < grey.length; p++)
    grey[p] = (77 * (data[4 * p] ?? 0) + 150 * (data[4 * p + 1] ?? 0) + 29 * (data[4 * p + 2] ?? 0)) >> 8;
  return grey;
}

const UNREADABLE: FilmFound = { answer: { trouble: 'film-unreadable' }, width: 0, height: 0, pictures: [] };
const found = (of: FilmFound): FilmFound => transfer(of, of.pictures);

/** Pictures as they come, greyed and kept until all are there. */
class Gathered {
  readonly film: Film;
  private first: ImageBitmap | undefined;
  private last: ImageBitmap | undefined;
  constructor(width: number, height: number) {
    this.film = { width, height, frames: [] };
  }
  /** @param canvas with the picture at the film's own size */
  async add(at: number, canvas: OffscreenCanvas): Promise<void> {
    const { width, height, frames } = this.film;
    // A camera may tell the same moment twice.
    if (at <= (frames.at(-1)?.at ?? -Infinity)) return;
    const context = canvas.getContext('2d', { willReadFrequently: true });
    if (!context) return;
    frames.push({ at, grey: greyOf(context.getImageData(0, 0, width, height)) });
    this.first ??= await createImageBitmap(canvas);
  }
  async keepLast(canvas: OffscreenCanvas): Promise<void> {
    this.last?.close();
    this.last = await createImageBitmap(canvas);
  }
  read(clock: FilmClock): FilmFound {
    const { width, height } = this.film;
    const pictures = [this.first, this.last].filter((one) => one !== undefined);
    return found({ answer: readFilm(this.film, clock), width, height, pictures });
  }
}

let live: Gathered | undefined;
let liveCanvas: OffscreenCanvas | undefined;

const films = {
  /**
   * Reads a film from its file, by the decoder of the browser. @param trueRate pictures a second at which it was filmed, where it plays slower
   */
  async read(file: Blob, trueRate: number | undefined, onShare: (share: number) => void): Promise<FilmFound> {
    const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
    try {
      const track = await input.getPrimaryVideoTrack();
      if (!track || !(await track.canDecode())) return UNREADABLE;
      const { averagePacketRate } = await track.computePacketStats();
      const slowed = trueRate && averagePacketRate > 0 ? Math.max(1, trueRate / averagePacketRate) : 1;
      const rate = averagePacketRate * slowed;
      const every = Math.max(1, Math.round(rate / MOST_A_SECOND));
      const size = sizeOf(await track.getDisplayWidth(), await track.getDisplayHeight());
      const from = await track.getFirstTimestamp();
      const length = Math.min((await track.computeDuration()) - from, LONGEST_FILM * slowed);
      const gathered = new Gathered(size.width, size.height);
      const sink = new CanvasSink(track, { ...size, fit: 'fill', poolSize: 2 });
      let [n, canvas]: [number, OffscreenCanvas | undefined] = [0, undefined];
      for await (const picture of sink.canvases(from, from + length)) {
        if (n++ % every !== 0) continue;
        canvas = picture.canvas as OffscreenCanvas;
        await gathered.add(picture.timestamp - from, canvas);
        if (n % 30 === 1) onShare((picture.timestamp - from) / length);
      }
      if (canvas) await gathered.keepLast(canvas);
      return gathered.read({ slowed });
    } catch (error) {
      console.warn(error);
      return UNREADABLE;
    } finally {
      input.dispose();
    }
  },
  /** Begins a film whose pictures come one by one: from a camera, or from a page that may not decode files itself. */
  begin(width: number, height: number): void {
    const size = sizeOf(width, height);
    live = new Gathered(size.width, size.height);
    liveCanvas = new OffscreenCanvas(size.width, size.height);
  },
  async add(at: number, picture: ImageBitmap): Promise<void> {
    if (live && liveCanvas) {
      liveCanvas
        .getContext('2d', { willReadFrequently: true })
        ?.drawImage(picture, 0, 0, liveCanvas.width, liveCanvas.height);
      await live.add(at, liveCanvas);
    }
    picture.close();
  },
  /** @param trueRate as above; the rate at which it plays is seen by its pictures */
  async end(trueRate: number | undefined): Promise<FilmFound> {
    if (!live || !liveCanvas) return UNREADABLE;
    await live.keepLast(liveCanvas);
    const { frames } = live.film;
    const gaps = frames.slice(1).map(({ at }, i) => at - (frames[i]?.at ?? at));
    const gap = gaps.toSorted((a, b) => a - b)[gaps.length >> 1] ?? 0;
    const done = live.read({ slowed: trueRate && gap > 0 ? Math.max(1, trueRate * gap) : 1 });
    live = undefined;
    return done;
  },
};
export type FilmWorker = typeof films;
expose(films);
