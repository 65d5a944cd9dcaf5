import type { AxisSpecs, DataSheet, Frame, Quantity } from '@kevro/core';
import type { ErrorCode, InstrumentKind, SerialLink } from '@kevro/contract';

/** What an instrument is to read: a quantity of the frame that lies on it (a twist weight is read edge-on), or a calibration rod. */
export type ToRead = { quantity: Quantity } | { rod: number };

export interface DriverEvents {
  /** Told at once when the instrument is opened, and at every change. `warming` may read, less surely. */
  state: (state: 'ready' | 'warming' | 'lost', warmInSeconds: number) => void;
  /** What the display shows now, in the instrument's own unit. */
  sample: (value: number, steady: boolean, tared?: boolean) => void;
  /** What is wrong with what it sends, or why it is lost; null once all is well again. */
  trouble: (why: ErrorCode | null) => void;
}

/** The instrument went away in the middle of a reading. The reading is not lost: it goes on when the instrument is back. */
export class Lost extends Error {
  constructor() {
    super('the instrument is lost');
    this.name = 'Lost';
  }
}

/**
 * The one thing a measuring device has to bring to work with Kevro; see docs/instruments.md. Values are raw: averaging, correction by the calibration and
 * storing are done for every device alike.
 */
export interface Driver {
  /** Begins to watch the device. Called once. */
  open: (events: DriverEvents) => void;
  /**
   * One raw value: a steady weighing, a balance, or one swing. Swing weights come about the axis of the data sheet.
   * @throws Lost where the device goes away, the signal's reason where it is aborted
   */
  read: (what: ToRead, signal: AbortSignal) => Promise<number>;
  /** Lets the device go; done once another program may have it. */
  close: () => void | Promise<void>;
  /** The name of the port that it has, where it has one. */
  path?: string;
  /** Given by simulated instruments only: what lies on them is put there by a call, and their cable can be pulled. */
  simulated?: Simulated;
}

/** What lies on a simulated instrument, as it truly is. */
export type Truth =
  | {
      specs: AxisSpecs & { twistWeight: number };
      leftRightG: number;
      frame: Frame;
      /** By what share the frame is deeper, and moves more air, than frames of its sport do. */
      layup: { deeper: number; airier: number };
    }
  | { rod: number };

export interface Simulated {
  put: (truth: Truth | null) => void;
  plug: (plugged: boolean) => void;
}

/** What a driver is made from. */
export interface DriverSettings {
  id: string;
  kind: InstrumentKind;
  sheet: DataSheet;
  link: SerialLink | null;
}
export type MakeDriver = (settings: DriverSettings) => Driver;
