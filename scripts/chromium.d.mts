export const flags: string[];
export function findChromium(): string | undefined;
export function needChromium(): string;
