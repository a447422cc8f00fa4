export { LEVELS, type Account, type Level } from './levels';
export {
	accountById,
	accountOf,
	askedBy,
	type AskedBy,
	addAccount,
	changeLevel,
	closeAccount,
	hasAccounts,
	inviteAccount,
	inviteAgain,
	listAccounts
} from './people';
export { addFirstOwner, setUpCode } from './first-owner';
export { askReset, changePassword, chooseByLink } from './choosing';
export { accountOfLink, LINK_HOURS, newAccountLink, type LetterJob, type LetterPurpose } from './letters';
export { finishSignIn, proveAgain, signIn, signInByPasskey } from './sign-in';
export { endSessions, PROOF_MINUTES, sessionOf, sessionsOf, signOut, type Session } from './sessions';
export { beginCodes, factorsOf, hasFactor, newCodes, newRecoveryCodes, removeFactors } from './second-factor';
export { addPasskey, askForNew, askForOne, passkeysOf, passkeysPossible, removePasskey } from './passkeys';
export { safety, setSafety } from './safety';
export { fromDirectory, toDirectory } from './directory';
