/** How many cases a law is tried on. `npm run laws` tries twenty times as many as `npm test`. */
export const often = (usual: number): number => Math.ceil(usual * Number(process.env.LAWS ?? 1));
