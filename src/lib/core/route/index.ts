export { following, opensBy, ruleOfNaming } from './following';
export {
	actorsOf,
	actorsAt,
	acts,
	comesBefore,
	doneWord,
	dutyVerb,
	guestsOf,
	isCertain,
	moved,
	offRoute,
	stopOf,
	toBeNamedBy
} from './route';
