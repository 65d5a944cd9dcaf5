import { SPORTS, isStrung, type Sport, type TypicalParts } from '../sport';
import { partRule, type Part, type PartData } from './part';

/** A common part without a maker, with what such a part usually weighs. */
export interface Starter {
  id: string;
  name: string;
  /** Most shops have it. */
  usual: boolean;
  part: PartData;
}

/** How far what nobody weighed may be off, as a standard uncertainty: rolls of one kind differ so from maker to maker, fillings from handle to handle (from memory). */
const ROLL_SHARE = 0.1;
const HANDLE_SHARE = 0.15;

const tape = (material: 'lead' | 'tungsten', widthMm: number, gPerCm: number): PartData => ({
  kind: 'tape',
  material,
  widthMm,
  gPerCm,
  stepCm: 0.5,
  massShare: ROLL_SHARE,
});

// Weights: common practice, from memory.
const FOR_ALL: readonly Starter[] = [
  { id: 'lead-6', name: 'Lead tape 6 mm', usual: true, part: tape('lead', 6, 0.12) },
  { id: 'lead-12', name: 'Lead tape 12 mm', usual: false, part: tape('lead', 12, 0.24) },
  { id: 'tungsten-6', name: 'Tungsten tape 6 mm', usual: true, part: tape('tungsten', 6, 0.265) },
  { id: 'tungsten-12', name: 'Tungsten tape 12 mm', usual: false, part: tape('tungsten', 12, 0.53) },
  {
    id: 'putty',
    name: 'Handle putty',
    usual: true,
    part: { kind: 'filling', material: 'putty', gPerCm: 1.6, dabG: 0.5, massShare: HANDLE_SHARE },
  },
  {
    id: 'silicone',
    name: 'Handle silicone',
    usual: false,
    part: {
      kind: 'filling',
      material: 'silicone',
      gPerCm: 1.3,
      dabG: 0.5,
      setMinutes: 720,
      massShare: HANDLE_SHARE,
    },
  },
];

const STRINGS: Partial<Record<Sport, readonly Starter[]>> = {
  tennis: [
    {
      id: 'polyester-125',
      name: 'Polyester string 1.25 mm',
      usual: false,
      part: { kind: 'string', material: 'polyester', gaugeMm: 1.25 },
    },
    {
      id: 'nylon-130',
      name: 'Nylon string 1.30 mm',
      usual: false,
      part: { kind: 'string', material: 'nylon', gaugeMm: 1.3 },
    },
  ],
  badminton: [
    {
      id: 'nylon-068',
      name: 'Nylon string 0.68 mm',
      usual: false,
      part: { kind: 'string', material: 'nylon', gaugeMm: 0.68 },
    },
  ],
};

const screw = (massG: number): Starter => ({
  id: `screw-${massG}`,
  name: `Screw ${massG} g`,
  usual: true,
  part: { kind: 'insert', massG, massUncertaintyG: ROLL_SHARE * massG },
});
const hasSlots = (sport: Sport): boolean => SPORTS[sport].zones.some(({ slot }) => slot !== undefined);

type Wound = keyof Pick<TypicalParts, 'overgrip' | 'synthetic' | 'leather'>;
const GRIPS: readonly { of: Wound; name: string; usual: boolean }[] = [
  { of: 'overgrip', name: 'Overgrip', usual: true },
  { of: 'synthetic', name: 'Synthetic grip', usual: false },
  { of: 'leather', name: 'Leather grip', usual: false },
];

/** One kind of grip for each weight that it has in these sports. */
function grips(sports: readonly Sport[], { of, name, usual }: (typeof GRIPS)[number]): Starter[] {
  const weightIn = (sport: Sport) => SPORTS[sport].typicalParts[of];
  const firsts = sports.filter(
    (sport, i) => sports.findIndex((other) => weightIn(other).massG === weightIn(sport).massG) === i,
  );
  return firsts.map((first) => {
    const { massG, massUncertaintyG } = weightIn(first);
    const weight = { massG, massUncertaintyG };
    const alike = sports.filter((sport) => weightIn(sport).massG === massG);
    return {
      id: `${of}-${alike.join('-')}`,
      name: firsts.length > 1 ? `${name}, ${alike.join(' and ')}` : name,
      usual,
      part:
        of === 'overgrip'
          ? { kind: 'overgrip', ...weight, sizes: 0.5 }
          : { kind: 'baseGrip', material: of, ...weight },
    };
  });
}

/**
 * What a shop of these sports can begin its stock with: common parts with typical weights, marked so until somebody weighs them.
 * @example startersFor(['padel']).some(({ id }) => id === 'screw-1') // true
 */
export const startersFor = (sports: readonly Sport[]): Starter[] => [
  ...FOR_ALL,
  ...GRIPS.flatMap((grip) => grips(sports, grip)),
  ...sports.filter(isStrung).flatMap((sport) => STRINGS[sport] ?? []),
  ...(sports.some(hasSlots) ? [1, 2].map(screw) : []),
];

/**
 * A part with the weight that somebody put on the scale: so much of it as its kind's rule asks for. It is typical no more.
 * @param sampleG what the sample weighed, g @returns the part, or undefined where its kind has no weight of its own
 * @example weighed(tape, 11.8)?.gPerCm // 0.118: a metre of it was weighed
 */
export function weighed<P extends PartData & Pick<Part, 'typical'>>(part: P, sampleG: number): P | undefined {
  const { sample } = partRule(part);
  if (!sample) return undefined;
  const { typical, ...known } = part;
  const own = { ...known } as Record<string, unknown>;
  // How unsure a typical weight is says nothing about one that was weighed.
  delete own.massShare;
  delete own.massUncertaintyG;
  const digits = sample.field === 'gPerCm' ? 4 : 2;
  own[sample.field] = Number((sampleG / (sample.cm ?? 1)).toFixed(digits));
  return own as unknown as P;
}
