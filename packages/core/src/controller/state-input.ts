import type { Clip } from '../clip/clip.js';
import type { Compass } from '../compass/compass.js';
import type { ProblemList } from '../problem/problem.js';
import type { PoseCache } from '../sheet/pose.js';
import type { SignalCompiler } from '../signal/compiler.js';
import type { Flipbooks } from './flipbooks.js';
import type { ControllerDefinition } from './definition.js';
import type { PlacedStates } from './tracks.js';

/** What states are compiled with: all that was compiled before them. */
export interface StatesInput {
  readonly definition: ControllerDefinition;
  /** `undefined` for a clip that has problems of its own. */
  readonly clips: ReadonlyMap<string, Clip | undefined>;
  readonly flipbooks: Flipbooks;
  readonly compass: Compass;
  readonly signals: SignalCompiler;
  readonly problems: ProblemList;
  readonly poses: PoseCache;
  readonly placed: PlacedStates;
}
