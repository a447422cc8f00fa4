export {
	actorsOf,
	actorsAt,
	acts,
	comesBefore,
	doneWord,
	dutyVerb,
	moved,
	nextStop,
	stopOf,
	toBeNamedBy
} from './route';
