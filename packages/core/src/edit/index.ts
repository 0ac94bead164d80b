// What a document's text is changed by.
export { EditError, changedText, spliceBetween } from './change.js';
export type { Change, Splice } from './change.js';
export { changedData } from './data.js';
export { inlineText, styleOf } from './writing.js';
export type { TextStyle } from './writing.js';

// An open document: what was done to it, undone and done again.
export { beginHistory, beside, edited, redoSays, redone, undoSays, undone, withText } from './history.js';
export type { Edit, History } from './history.js';

// Names, with everything that refers to them.
export { proposedNames } from './proposed.js';
export type { ProposedNames } from './proposed.js';
export { rename, renameInRehearsal } from './rename.js';
export type { Renaming } from './rename.js';
export type { NameKind } from './names.js';

// Step 1: sheets, cells and marks.
export {
  addSheet,
  clipsUsing,
  cutSheet,
  dropCells,
  joinCells,
  moveCell,
  rectOf,
  removeSheet,
  resizeCell,
  splitCell,
} from './sheets.js';
export { addPart, hangPart, movePart, partOf, removePart } from './parts.js';
export { updateImages } from './images.js';
export type { ImagesUpdate } from './images.js';
export { between, copyMarks, placeMark, placePivots, removeMark } from './marks.js';

// Step 2: clips, their frames, cues and spans.
export {
  addClip,
  duplicateClip,
  duplicateFrame,
  freeName,
  insertFrames,
  loopClip,
  moveClip,
  moveFrame,
  newClips,
  placeCue,
  tellCue,
  placeSpan,
  rateClip,
  removeClip,
  removeFrames,
  sheetOf,
  strideClip,
  timeFrames,
} from './clips.js';
// Step 3: directions.
export { drawFor } from './flipbooks.js';

// Step 4: signals, and conditions over them.
export { addDerived, addSignal, removeSignal, setSignal } from './signals.js';
export { conditionText, conditionTree } from './conditions.js';
export type { ConditionTree } from './conditions.js';

// Step 5: states.
export { addTrack, groupIn, groupState, groupsOf, removeTrack, setGroup, setVariant } from './groups.js';
export { acceptFinding, acceptNoMore, remedyOf } from './remedy.js';
export type { FindingData } from './remedy.js';
export { addState, rankState, removeState, setHop, setState } from './states.js';

export { framesOf } from './frames.js';
export type { Frame, SheetSize } from './frames.js';
export { changesBetween, changesOver } from './over.js';
export { writeCells } from '../clip/cells.js';
