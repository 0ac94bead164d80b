import type { Field, GroupedStates, GroupsIn } from './names.js';

export type Keys<T> = keyof T & string;
type SignalNames<S> = {
  [Name in Keys<S>]: S[Name] extends { vector: unknown } ? Name | `${Name}.x` | `${Name}.y` : Name;
}[Keys<S>];
/** What choices are compared with. */
type OptionsOf<S> = {
  [Name in keyof S]: S[Name] extends { readonly choice: readonly (infer Option)[] } ? Option & string : never;
}[keyof S];
type TagsOf<States> = {
  [S in keyof States]: States[S] extends { readonly tags: readonly (infer Tag)[] } ? Tag : never;
}[keyof States];
type MarksOf<Clips, What extends 'cues' | 'spans'> = {
  [C in keyof Clips]: Clips[C] extends Readonly<Record<What, infer Marks>> ? Keys<Marks> : never;
}[keyof Clips];
/** The clips that `rows` write out have the directions in their names. */
type RowsOf<Clips> = {
  [C in Keys<Clips>]: Clips[C] extends { readonly rows: unknown } ? `${C}-${string}` : never;
}[Keys<Clips>];

type TracksIn<D> = Field<D, 'tracks', object>;
/** The states of the document itself, as those of the track `body`, and those of the others. */
type StatesByTrack<D> = {
  readonly [T in 'body' | Keys<TracksIn<D>>]: T extends keyof TracksIn<D>
    ? StatesOf<TracksIn<D>[T]>
    : StatesOf<D>;
};
/** The states of a definition or of a track with those in its groups; and the groups themselves, which are led into by their names too. */
type StatesOf<D> = Field<D, 'states', object> & GroupedStates<D>;
/** The states and groups that a document or a track can be led into. */
export type Enterable<D> = Keys<StatesOf<D>> | Keys<GroupsIn<D>>;
type GroupsByTrack<D> = {
  readonly [T in 'body' | Keys<TracksIn<D>>]: T extends keyof TracksIn<D>
    ? GroupsIn<TracksIn<D>[T]>
    : GroupsIn<D>;
};
type OfEach<ByTrack, What extends 'states' | 'tags'> = {
  [T in keyof ByTrack]: What extends 'tags' ? TagsOf<ByTrack[T]> : Keys<ByTrack[T]>;
}[keyof ByTrack];
type PartsOf<Sheets> = { [S in keyof Sheets]: Keys<Field<Sheets[S], 'parts', object>> }[keyof Sheets];

/** Every name of a definition, by the role of the texts that refer to it (see `TextRole`). */
export interface NamesByRole<D> {
  readonly sheet: Keys<Field<D, 'sheets', object>>;
  readonly part: PartsOf<Field<D, 'sheets', object>>;
  readonly clip: Keys<Field<D, 'clips', object>> | RowsOf<Field<D, 'clips', object>>;
  readonly shown:
    Keys<Field<D, 'clips', object>> | RowsOf<Field<D, 'clips', object>> | Keys<Field<D, 'flipbooks', object>>;
  readonly cue: MarksOf<Field<D, 'clips', object>, 'cues'>;
  readonly span: MarksOf<Field<D, 'clips', object>, 'spans'>;
  readonly instant: 'now' | 'end' | MarksOf<Field<D, 'clips', object>, 'cues'>;
  readonly signal: ReadOf<D>;
  readonly state: Enterable<D>;
  readonly ownState: Enterable<D>;
  readonly stateAnywhere:
    Enterable<D> | OfEach<StatesByTrack<D>, 'states'> | OfEach<GroupsByTrack<D>, 'states'>;
  readonly track: Keys<StatesByTrack<D>>;
  readonly expression: ReadOf<D>;
}
type ReadOf<D> =
  | SignalNames<Field<D, 'signals', object>>
  | OptionsOf<Field<D, 'signals', object>>
  | (Keys<TracksIn<D>> extends never ? never : OfEach<StatesByTrack<D>, 'states'>)
  | Keys<Field<D, 'derived', object>>
  | OfEach<StatesByTrack<D>, 'tags'>
  | OfEach<GroupsByTrack<D>, 'tags'>
  | Keys<StatesByTrack<D>>
  | `${Keys<StatesByTrack<D>>}.${OfEach<StatesByTrack<D>, 'states'> | OfEach<GroupsByTrack<D>, 'states'>}`;
