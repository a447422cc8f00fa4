import { refuse } from '../core/refusal';

/** Of one picture, whatever it is wanted for. */
export const NO_PICTURE = refuse('not-a-picture', 'That is not a picture that can be read. Use a PNG or JPEG.');
