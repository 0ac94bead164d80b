export { Troupe } from './troupe.js';
export type { MemberRange } from './troupe.js';
export type { DrawnMembers } from './drawings.js';
export type { SavedTroupe } from './saved.js';
