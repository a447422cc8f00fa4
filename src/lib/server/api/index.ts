export { description } from './describe';
export { answerCall } from './dispatch';
export { endKey, keysOf, makeKey, type ApiKey } from './keys';
export { sweepAnswers } from './once';
export { RIGHT_SAYS, RIGHTS, type Right } from './rights';
