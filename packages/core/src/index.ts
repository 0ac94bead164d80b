// Steps 1 to 3: sheets, clips, directions.
export type {
  BoxDefinition,
  GridDefinition,
  MarksDefinition,
  PartDefinition,
  PieceDefinition,
  RectangleDefinition,
  SheetDefinition,
} from './sheet/definition.js';
export type { Box, Cell, ImageSize, Part, Piece, Point, Sheet } from './sheet/sheet.js';
export { poseOf, stampsOf } from './sheet/pose.js';
export type { Pose, PoseLayer, Stamp } from './sheet/pose.js';
export { cellNumbers } from './clip/cells.js';
export type { CellsDefinition, FrameRange, LineDefinition } from './clip/cells.js';
export type { ClipDefinition, LoopDefinition } from './clip/definition.js';
export type { Clip } from './clip/clip.js';
export type { FlipbookDefinition } from './clip/rows.js';
export type { Compass } from './compass/compass.js';
export type {
  CompassDefinition,
  DiagonalRule,
  DirectionsDefinition,
  VectorDefinition,
} from './compass/definition.js';

// What a body wears.
export type {
  LayerDefinition,
  LayerPieceDefinition,
  OutfitDefinition,
  PaletteDefinition,
  WardrobeDefinition,
  WhereDefinition,
} from './controller/wardrobe-definition.js';
export type { DyedImage, Outfit } from './performer/outfit.js';
export type { Palette } from './wardrobe/palette.js';
export type { Layer, LayerPiece, Wardrobe } from './wardrobe/layer.js';

// Step 4: signals.
export type {
  DerivedDefinition,
  NumberBounds,
  Signal,
  SignalDefinition,
  SignalValue,
} from './signal/definition.js';

// Step 5: states.
export { defineController } from './controller/define.js';
export type { Names, NamesOf } from './controller/names.js';
export { compileController } from './controller/compile.js';
export type { CompileOptions } from './controller/compile.js';
export type { DirectionDrawing } from './controller/flipbooks.js';
export type { Controller, Track } from './controller/controller.js';
export type { State } from './controller/state.js';
export type { Timeline } from './controller/timeline.js';
export type {
  AcceptDefinition,
  AgainRule,
  AtDefinition,
  CarryRule,
  ControllerDefinition,
  FacingDefinition,
  GaitsDefinition,
  GroupDefinition,
  HopDefinition,
  RateDefinition,
  ScrubDefinition,
  StateDefinition,
  TrackDefinition,
  TurnsDefinition,
  VarietyDefinition,
  YieldDefinition,
} from './controller/definition.js';
export type { RuleName } from './controller/rule.js';
export type { Report, ReportKind, Reports } from './controller/reports.js';

// Step 6: performing, and asking why.
export { Performer } from './performer/performer.js';
export { longestStep } from './performer/step-length.js';
export type { Showing } from './performer/showing.js';
export type { SavedPerformer } from './performer/saved.js';
export type { Observer } from './performer/observing.js';
export type { Input } from './performer/watch.js';
export type { PerformerSnapshot, TrackSnapshot } from './performer/snapshot-data.js';
export type {
  Holding,
  HopKept,
  KeptOut,
  Why,
  WhyCondition,
  WhyHop,
  WhyPart,
  WhyState,
  WhyTerm,
} from './performer/why.js';

// What is wrong, as data and in words.
export { DotHopError, pathText, problemText } from './problem/problem.js';
export type { DocumentPath, Problem } from './problem/problem.js';
export type { ProblemCode } from './problem/sentences.js';
