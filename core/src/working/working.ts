/** How a number came about: the equation, what was put in, and where the equation comes from. */
export interface Working {
  equation: string;
  values: WorkingValue[];
  result: WorkingValue;
  source: string;
  /** What the number takes for granted. */
  assumes?: string | undefined;
}

export interface WorkingValue {
  symbol: string;
  meaning: string;
  value: number;
  unit: string;
  digits?: number;
  /**
   * What the value does to the result: a `term` is added; of a balance the `moment`s are added and divided by the sum of the `mass`es. Others stand in the
   * equation.
   */
  role?: 'term' | 'moment' | 'mass';
}

/**
 * What the values shown add up to; undefined where the result is not a sum of them. What a reader does who checks the sheet with a calculator.
 * @example addUp(working) // working.result.value
 */
export function addUp({ values }: Working): number | undefined {
  const sum = (role: WorkingValue['role']): number =>
    values.reduce((all, v) => (v.role === role ? all + v.value : all), 0);
  if (values.some((v) => v.role === 'moment')) return sum('moment') / sum('mass');
  return values.some((v) => v.role === 'term') ? sum('term') : undefined;
}
