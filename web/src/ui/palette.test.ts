import { describe, expect, it } from 'vitest';
import { PALETTE } from './palette';

/** Relative luminance and contrast ratio as WCAG 2.1 defines them. */
const luminance = (hex: string): number => {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = Number.parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const contrast = (a: string, b: string): number => {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number];
  return (high + 0.05) / (low + 0.05);
};

describe.each(['light', 'dark'] as const)('the %s palette', (mode) => {
  const p = PALETTE[mode];
  it.each(['ink', 'soft', 'aim', 'reference', 'good', 'warn', 'brick'] as const)(
    '%s reads at AA on paper and sheet',
    (name) => {
      for (const ground of [p.paper, p.sheet]) expect(contrast(p[name], ground)).toBeGreaterThanOrEqual(4.5);
    },
  );
  it('the main action reads at AA', () => {
    expect(contrast(p.paper, p.ink)).toBeGreaterThanOrEqual(4.5);
  });
});
