import type { OfficeDays } from '../../core/pace';
import type { House } from '../house';
import { holidayList } from '../holidays';
import { organisation } from '../settings';

/** The days on which this office works. */
export const officeDays = ({ db }: Pick<House, 'db'>): OfficeDays => ({
	zone: organisation(db).zone,
	holidays: new Set(holidayList({ db }).map(({ day }) => day))
});
