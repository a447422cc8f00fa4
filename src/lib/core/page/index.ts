export * from './arrange';
export * from './geometry';
export { findPlaces, type FoundPlace } from './places/places';
export * from './printed';
export { shownPage, type ShownPage } from './shown-page';
export { ALL_SIDES, snap, snapTargets, type Guide, type Sides, type SnapTargets } from './snap';
export { textNeeds } from './text-room';
export { findText } from './find-text';
export * from './fit';
