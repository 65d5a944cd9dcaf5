import { expect, page, settled, shop, test } from './harness';
import { makeFitting } from './made';

// By finger, by mouse and by keys alone.

test.describe('very long names', () => {
  for (const width of [390, 1280])
    test(`break nothing at ${width} px`, async () => {
      const long = 'Wilhelmina-Alexandrina Featherstonehaugh-Cholmondeley of Brackenmouth upon Loop'.slice(
        0,
        80,
      );
      const { frame, fitting } = await makeFitting(shop, {
        name: long,
        frame: {
          maker: 'Plumbandloopworks'.repeat(4),
          model: 'Tide '.repeat(15).trim(),
          tag: `T${'9'.repeat(35)}${width}`,
        },
      });
      await page.setViewportSize({ width, height: 800 });
      for (const path of [
        '/',
        '/players',
        '/frames',
        `/frames/${frame.id}`,
        `/fittings/${fitting.id}/measure`,
        `/fittings/${fitting.id}/aim`,
      ]) {
        await page.goto(path);
        await settled(page);
        const sideways = () =>
          page.evaluate(() => {
            const beyond = [...document.querySelectorAll('main *, header *')].filter(
              (el) =>
                el.getBoundingClientRect().right > innerWidth + 1 &&
                el.checkVisibility() &&
                !el.closest('svg, .v-field, .who'),
            );
            return [
              document.documentElement.scrollWidth - innerWidth,
              ...beyond.map(
                (el) => `${el.tagName} ${el.className.toString()} ${el.textContent.slice(0, 30)}`,
              ),
            ];
          });
        expect([path, ...(await sideways())]).toEqual([path, 0]);
        // Nor do they leave the other columns a letter a line.
        if (width < 1000) continue;
        const tallest = await page.evaluate(() =>
          Math.max(0, ...[...document.querySelectorAll('tbody tr')].map((row) => row.clientHeight)),
        );
        expect(`${path}: a row of ${tallest < 200 ? 'some lines' : `${tallest} px`}`).toBe(
          `${path}: a row of some lines`,
        );
      }
    });
});
