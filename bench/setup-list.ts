import { ALL_SPORTS, seededUniforms, sportData } from '@kevro/core';

const random = seededUniforms(11);
const about = (value: number, share: number, digits: number): string =>
  (value * (1 + share * (2 * random() - 1))).toFixed(digits);

/** A list as people keep them: four sports, half of it tennis; some values missing, some dressed. */
export function listOfSetups(count: number): string {
  const rows = [
    'name,sport,weight (g),balance (cm),swing weight,twist weight,strings on,overgrips,kind,source,year,length (cm)',
  ];
  for (let i = 0; i < count; i++) {
    const sport = random() < 0.5 ? 'tennis' : (ALL_SPORTS[Math.floor(random() * 4)] ?? 'tennis');
    const { usual, lengthCm, dress } = sportData(sport);
    const strung = dress.components.includes('strings') && random() < 0.7;
    rows.push(
      [
        `Player ${i.toString(36)} ${(i * 7919).toString(36)}`,
        sport,
        about(usual.massG, 0.06, 1),
        random() < 0.9 ? about(usual.balanceCm, 0.02, 2) : '',
        about(usual.swingWeight, 0.06, 1),
        random() < 0.5 ? about(usual.twistWeight, 0.1, 2) : '',
        strung ? 'yes' : 'no',
        String(Math.floor(random() * 3)),
        random() < 0.5 ? 'published' : 'hearsay',
        `page ${i % 977}`,
        String(2000 + (i % 26)),
        (lengthCm + (random() < 0.1 ? 1.27 : 0)).toFixed(2),
      ].join(','),
    );
  }
  return rows.join('\n');
}
