import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { Browser } from '@playwright/test';
import type * as Mediabunny from 'mediabunny';
import { swing, type Swinging } from '../core/test/swinging';

/** How a film is made; all but its swing may be left out. */
export interface MadeFilm extends Swinging {
  rate: number;
  /** Pictures a second that the file says: fewer than it was filmed at for slow motion. */
  playedAt?: number;
  threads?: boolean;
  dark?: boolean;
  noise?: number;
  shake?: number;
  bits?: number;
}

/** A film of something that swings, drawn picture by picture and encoded by the browser itself, as a file. */
export async function makeFilm(browser: Browser, film: MadeFilm): Promise<Buffer> {
  const { rate, seconds, playedAt = rate } = film;
  const count = Math.round(seconds * rate);
  const angles = swing(
    film,
    Array.from({ length: count }, (_, i) => i / rate),
  ).map(({ angle }) => angle);
  const page = await browser.newPage();
  try {
    // A page that may encode: by the name of this machine, without a word to anybody.
    await page.route('http://localhost/', (route) =>
      route.fulfill({ contentType: 'text/html', body: '<!doctype html><title>film</title>' }),
    );
    await page.goto('http://localhost/');
    const bundle = createRequire(import.meta.url)
      .resolve('mediabunny')
      .replace(/dist\/.*/, 'dist/bundles/mediabunny.min.cjs');
    const code = await readFile(bundle, 'utf8');
    await page.addScriptTag({
      content: `window.mb = (() => { const exports = {}, module = { exports }; ${code}; return module.exports; })();`,
    });
    const base64 = await page.evaluate(
      async ({ angles, playedAt, threads, dark, noise, shake, bits }) => {
        const { Output, WebMOutputFormat, BufferTarget, CanvasSource } = (
          window as unknown as { mb: typeof Mediabunny }
        ).mb;
        const [width, height] = [320, 240];
        const canvas = document.createElement('canvas');
        Object.assign(canvas, { width, height });
        const pen = canvas.getContext('2d');
        if (!pen) throw new Error('no canvas');
        const target = new BufferTarget();
        const output = new Output({ format: new WebMOutputFormat(), target });
        const source = new CanvasSource(canvas, { codec: 'vp8', bitrate: bits });
        output.addVideoTrack(source, { frameRate: playedAt });
        await output.start();
        const grain = document.createElement('canvas');
        Object.assign(grain, { width: 256, height: 256 });
        const grains = grain.getContext('2d');
        const data = grains?.createImageData(256, 256);
        if (!grains || !data) throw new Error('no canvas');
        for (let p = 0; p < data.data.length; p += 4) {
          data.data.fill(Math.random() * 255, p, p + 3);
          data.data[p + 3] = noise;
        }
        grains.putImageData(data, 0, 0);
        for (const [i, angle] of angles.entries()) {
          const [sx, sy] = [shake * Math.sin(i * 0.11), shake * Math.cos(i * 0.07)];
          pen.setTransform(0.5, 0, 0, 0.5, 0, 0);
          pen.fillStyle = dark ? '#050505' : '#cfcabb';
          pen.fillRect(0, 0, 2 * width, 2 * height);
          // A wall with marks.
          pen.translate(sx, sy);
          for (let at = -1; at < 14; at++) {
            pen.fillStyle = dark ? '#060606' : at % 2 ? '#c2bca9' : '#b7b19d';
            pen.fillRect(at * 50, (at % 3) * 14, 20, 34);
            pen.fillRect(at * 47 + 9, 430 + (at % 4) * 8, 24, 22);
          }
          pen.translate(width, threads ? height : 60);
          pen.rotate(angle);
          pen.fillStyle = dark ? '#030303' : '#2b2f38';
          if (threads) pen.fillRect(-150, -11, 300, 22);
          else pen.fillRect(-8, -10, 16, 370);
          pen.setTransform(1, 0, 0, 1, 0, 0);
          if (noise > 0)
            for (let x = -((i * 83) % 256); x < width; x += 256)
              for (let y = -((i * 47) % 256); y < height; y += 256) pen.drawImage(grain, x, y);
          await source.add(i / playedAt, 1 / playedAt);
        }
        await output.finalize();
        const bytes = new Uint8Array(target.buffer ?? new ArrayBuffer(0));
        let text = '';
        for (let at = 0; at < bytes.length; at += 32_768)
          text += String.fromCharCode(...bytes.subarray(at, at + 32_768));
        return btoa(text);
      },
      {
        angles,
        playedAt,
        threads: film.threads ?? false,
        dark: film.dark ?? false,
        noise: film.noise ?? 12,
        shake: film.shake ?? 0,
        bits: film.bits ?? 600_000,
      },
    );
    return Buffer.from(base64, 'base64');
  } finally {
    await page.close();
  }
}
