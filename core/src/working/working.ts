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
