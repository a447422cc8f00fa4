export { fit, versionOf, type Doubt, type Fitted, type Fitting, type ToFit, type Version } from './fit';
export { landmarksOf, type Landmark } from './landmarks';
export { markersOn, meaningOfMarker, type Marker, type Meant } from './markers';
export { phraseIn, type PhrasePlace } from './pin';
export type { Pin } from './pin-schema';
export { Recogniser, verdictOf, type Likeness, type Verdict } from './recognise';
export { bare, streamOf, type Stream, type Token } from './stream';
