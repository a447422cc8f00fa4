export { usualTime, usualTimeInWords } from './answering';
export { stopsAhead, stopsOf, type Curves, type Known, type PlacedStop } from './ahead';
export { CLOCKS, countedIn, mondayOf, type CountedClock, type CountedWait, type Phase } from './counting';
export { amongValue, ANY, facetsOf, stopValue, versionValue, waysToAsk, type Among, type Facet } from './facets';
export { comingWithin, eachDay, NEAR, type ComingDay } from './coming';
export { type EndStep } from './ends';
export { forecast, type Forecast, type Spread } from './forecast';
export { cameAfter, type CameAfter, type Touched } from './helps';
export { countedAs, daysFrom } from './lengths';
export { curveOf, FEW, UNUSUAL, type Curve } from './likeness';
export { type End, type Wait } from './waits';
export { workingUntil, type OfficeDays } from './working';
export { BAD_ENDS, courseOf, differs, type Course } from './answers';
export {
	amongOf,
	EVERYTHING,
	isBroad,
	paceAskedIn,
	paceQuery,
	PERIODS,
	periodsOf,
	type PaceAsked,
	type Period,
	type SideBySide
} from './asked';
export {
	badlyTable,
	comingTable,
	howLongTable,
	lateTable,
	QUESTIONS,
	whereTable,
	type Question,
	type Table
} from './tables';
export {
	badlyInWords,
	comingInWords,
	cameAfterInWords,
	courseInWords,
	ENDED,
	howLongInWords,
	lateInWords,
	lengthInWords,
	likelyInWords,
	noDateInWords,
	percent,
	whereInWords
} from './words';
