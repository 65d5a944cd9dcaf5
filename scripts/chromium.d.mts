export const CHROMIUM_ARGS: string[];
export function findChromium(): string | undefined;
