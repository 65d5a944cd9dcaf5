import { ref } from 'vue';
import { partWeight as weightIn, type PartUnit } from '@kevro/core';

/** The unit that the shop says weights of parts in. */
const shopUnit = ref<PartUnit>('g');
export const partUnit = (): PartUnit => shopUnit.value;
export const setPartUnit = (unit: PartUnit): void => {
  shopUnit.value = unit;
};

/** The weight of a part with its unit, as the shop says it. @param digits decimals that it has in grams @example partWeight(2.34) // '2.3 g' */
export const partWeight = (massG: number, digits = 1): string => weightIn(massG, shopUnit.value, digits);
/** The same without the zeros at its end. @example shortWeight(2) // '2 g' */
export const shortWeight = (massG: number, digits = 1): string =>
  weightIn(massG, shopUnit.value, digits, true);
/** What a column or a field of such weights is called. */
export const partWeightLabel = (): string => ({ g: 'Grams', oz: 'Ounces', grains: 'Grains' })[shopUnit.value];
/** Its number alone, where the unit stands over the column. @example partNumber(2.34) // '2.3' */
export const partNumber = (massG: number, digits = 1): string =>
  partWeight(massG, digits).split(' ')[0] ?? '';
