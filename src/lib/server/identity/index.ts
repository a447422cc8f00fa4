export { checkIdentity, type IdentityJob } from './checking';
export { forgetPictures } from './forgetting';
export { identityLook, judgeHeld, picturesZip, showPictures, shownPicture } from './judging';
export { DESK_MODES, deskMode, identitySetting, setDeskMode, setIdentity } from './setting';
export { identityState } from './to-show';
export { addIdentityPicture, answerQuestions, handInIdentity, spareKnown } from './showing';
