export * from './arrange';
export * from './geometry';
export { findPlaces, type FoundPlace } from './places/places';
export * from './printed';
export { shownPage, type ShownPage, type ShownWord, type TextRow } from './shown-page';
export { ALL_SIDES, snap, snapTargets, type Guide, type Sides, type SnapTargets } from './snap';
export { textNeeds } from './text-room';
export { findText, type TextHit } from './find-text';
