import {
  bySpec,
  everySpec,
  usualDrift,
  usualParts,
  type Instruments,
  type KnownSpecs,
  type Parted,
  type Readings,
  type SpecKey,
  type SportData,
} from '@kevro/core';

/** What a caller says of the instruments at start and check. */
export interface InstrumentsSaid {
  start?: Partial<Record<SpecKey, number | Parted>> | undefined;
  uncertainty?: Partial<Record<SpecKey, number | Parted>> | undefined;
  sameInstruments?: boolean | undefined;
}

/** A plain number is all of it random. */
const partsOf = (said: number | Parted): Parted =>
  typeof said === 'number' ? { random: said, common: 0 } : said;
const known = (said: InstrumentsSaid['start'] = {}): Partial<Record<SpecKey, Parted>> =>
  Object.fromEntries(Object.entries(said).map(([key, one]) => [key, partsOf(one)]));

/** The instruments of a plan or of its readings: the sport's typical ones in their usual parts where nothing is said. */
export function instrumentsSaid(
  { typicalReading }: Pick<SportData, 'typicalReading'>,
  { start, uncertainty, sameInstruments = true }: InstrumentsSaid,
): Instruments {
  const check = { ...usualParts(typicalReading), ...known(uncertainty) };
  return {
    start: { ...check, ...known(start) },
    check,
    same: bySpec(() => sameInstruments),
    drift: usualDrift(check),
  };
}

/** The instruments of a chance: a start of which nothing is said is exact, and what is said drifts by as much as is said. */
export function chanceInstruments(
  { typicalReading }: Pick<SportData, 'typicalReading'>,
  {
    start,
    uncertainty,
    sameInstruments = true,
    drift = {},
  }: InstrumentsSaid & { drift?: KnownSpecs | undefined },
): Instruments {
  const typical = bySpec((key): Parted => ({ random: typicalReading[key], common: 0 }));
  return {
    start: known(start),
    check: { ...typical, ...known(uncertainty) },
    same: bySpec(() => sameInstruments),
    drift: bySpec((key) => drift[key] ?? 0),
  };
}

/** How often each spec is read: once where nothing is said. */
export const readingsSaid = (said: Partial<Readings> | undefined): Readings => ({ ...everySpec(1), ...said });
