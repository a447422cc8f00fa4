export { findDocument, type FoundDocument } from './edges';
export { greyOf, mean, sharpness, smaller, type Grey, type Pixels } from './grey';
export { evenLight, inkOf } from './ink';
export { fitted, projected, projection, type Corners, type Projection, type Spot } from './perspective';
export { fromAbove, straightened } from './straightened';
