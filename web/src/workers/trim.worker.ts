import { Fault, trimPlans, type Problem, type Trim, type TrimRequest } from '@kevro/core';

/** The smallest corrections of a build that was checked, worked out beside the page. */
export type TrimMessage = { trims: Trim[] } | { problems: Problem[] } | { failure: string };
const post = (message: TrimMessage): void => self.postMessage(message);

self.onmessage = ({ data }: MessageEvent<TrimRequest>) => {
  try {
    post({ trims: trimPlans(data) });
  } catch (error) {
    if (error instanceof Fault) post({ problems: error.problems });
    else post({ failure: String(error) });
  }
};
