export { fit, versionOf, type Doubt, type Fitted, type Fitting, type ToFit, type Version } from './fit';
export { landmarksOf } from './landmarks';
export { markersOn, meaningOfMarker, type Marker } from './markers';
export { phraseIn, type PhrasePlace } from './pin';
export type { Pin } from './pin-schema';
export { Recogniser, verdictOf, type Verdict } from './recognise';
export { streamOf, type Stream } from './stream';
