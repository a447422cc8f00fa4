export { findDocument, type FoundDocument } from './edges';
export { greyOf, mean, sharpness, smaller, type Grey, type Pixels } from './grey';
export { evenLight, inkOf } from './ink';
export {
	boxThrough,
	cornersOf,
	cornersThrough,
	fitted,
	projected,
	projection,
	whole,
	type Corners,
	type Projection,
	type Spot
} from './perspective';
export { sampled } from './sampled';
export { fromAbove, straightened } from './straightened';
