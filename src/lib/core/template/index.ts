export { clashesOf, nameOf, parted, personOf } from './clashes';
export { joined, proposed } from './join';
export { asOne, movedGroup, type Joining, type Part } from './joining';
export { isLocked, isPersonLocked, lockedChange } from './locks';
export { asRoles, openAnswers, openRoles, roleName, used, withKnown, type Given } from './use';
export { withPaper, type OtherPaper } from './paper';
export { filledIn, strangeValues, valuesOf } from './values';
