export * from './acting';
export * from './border';
export { changedWords, type ChangedWords } from './changed';
export { openAndConsent } from './consenting';
export { enterCode, sendCode } from './identity';
export { addFile, addMarkPicture, pagesSeen, saveAnswers } from './keeping';
export { fileFor, maySeePicture, signingView } from './view';
export { visit, type Visitor } from './visit';
