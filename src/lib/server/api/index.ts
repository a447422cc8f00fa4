export { description } from './describe';
export { answerCall } from './dispatch';
export { endKey, keysOf, makeKey } from './keys';
export { sweepAnswers } from './once';
export { RIGHT_SAYS, RIGHTS } from './rights';
