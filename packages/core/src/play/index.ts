// All that a game needs to play a compiled document, and nothing else.
export { loadCompiled } from '../compiled/load.js';
export type { CompiledDocument } from '../compiled/format.js';
export { Player } from '../performer/player.js';
export type { Showing } from '../performer/showing.js';
export type { SavedPerformer } from '../performer/saved.js';
export { stampsOf } from '../sheet/pose.js';
export type { Pose, PoseLayer, Stamp } from '../sheet/pose.js';
export type { Box, Cell, Point } from '../sheet/sheet.js';
export type { Controller } from '../controller/controller.js';
export type { Names } from '../controller/names.js';
export type { RuleName } from '../controller/rule.js';
export type { Report, ReportKind, Reports } from '../controller/reports.js';
export type { Signal, SignalValue } from '../signal/definition.js';
export { DotHopError } from '../problem/error.js';
export type { DocumentPath, Problem } from '../problem/error.js';
