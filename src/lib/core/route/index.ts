export { following, opensBy, ruleOfNaming, willOpen } from './following';
export {
	actorsOf,
	actorsAt,
	acts,
	beforeNotary,
	comesBefore,
	doneWord,
	dutyVerb,
	guestsOf,
	isCertain,
	mayHost,
	moved,
	notaryIn,
	offRoute,
	stopOf,
	toBeNamedBy
} from './route';
