/** How a number came about: the equation, what was put in, and where the equation comes from. */
export interface Working {
  equation: string;
  values: WorkingValue[];
  result: WorkingValue;
  source: string;
  /** What the number takes for granted. */
  assumes?: string;
}

export interface WorkingValue {
  symbol: string;
  meaning: string;
  value: number;
  unit: string;
  digits?: number;
}
