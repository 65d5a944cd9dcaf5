import type { PaddleShape } from '@kevro/core';
import { SHAPE_NAMES, type Beside } from '@kevro/contract';
import { GUIDE_NAMES, PURPOSE_NAMES } from '.';
import { dayWords } from './days';

export const shapeName = (shape: string): string => SHAPE_NAMES[shape as PaddleShape] ?? shape;

/** What something beside a frame is called. @param ownId the frame in hand: its earlier rounds are called by their day */
export function besideName(one: Beside, ownId: string): string {
  switch (one.kind) {
    case 'measured':
      return one.frame.id === ownId ? `This frame on ${dayWords(one.measurement.takenAt)}` : one.frame.tag;
    case 'guide':
      return `Guide: ${GUIDE_NAMES[one.guide]}`;
    case 'shape':
      return `Average ${shapeName(one.shape)} frame`;
  }
}

/** Where its numbers come from. */
export function besideTold(one: Beside): string {
  switch (one.kind) {
    case 'measured': {
      const { measurement, round, frame } = one;
      const when = round === null ? '' : `, round ${round}`;
      const wrong = measurement.counts ? '' : ', discarded since';
      return `${PURPOSE_NAMES[measurement.purpose]}${when}, ${dayWords(measurement.takenAt)}${wrong} · ${frame.maker} ${frame.model}`;
    }
    case 'guide':
      return 'middle of its bands';
    case 'shape':
      return 'class average; common practice';
  }
}
