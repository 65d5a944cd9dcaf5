/**
 * The palette. One warm colour, the aim's; one cool, for references. Each text colour has a contrast of at least 4.5:1 on paper
 * and sheet (`palette.test.ts`).
 */
export const PALETTE = {
  light: {
    paper: '#f4f1ea',
    sheet: '#fffdf8',
    ink: '#1d2a2c',
    soft: '#55625f',
    line: '#d8d2c4',
    aim: '#ad4218',
    reference: '#2b5a7a',
    band: '#b39d55',
    good: '#2b6638',
    warn: '#855200',
    brick: '#7d1f1f',
    grip: '#e3ddce',
    mesh: '#cfc8b8',
  },
  dark: {
    paper: '#141a1b',
    sheet: '#1d2526',
    ink: '#eeebe3',
    soft: '#aab4b0',
    line: '#38443f',
    aim: '#f2945f',
    reference: '#8fc0e0',
    band: '#9a8a4c',
    good: '#8fd09c',
    warn: '#e9b85c',
    brick: '#f3a09b',
    grip: '#3a423f',
    mesh: '#3b4643',
  },
} as const;
