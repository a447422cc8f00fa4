import { cutText } from '../../core/clean-text';
import { howShown } from '../../words/shown';
import type { House } from '../house';
import { eventsOf } from '../packets/log';

/** As much of it as stands in an act. */
const MOST = 190;

/** How somebody has shown who they are, in words that can stand on paper; '' where they have shown nothing. */
export const knownBy = (house: House, packet: string, person: string): string =>
	cutText(howShown(eventsOf(house.db, packet), person).replace(/[\u2066-\u2069]/g, ''), MOST);
