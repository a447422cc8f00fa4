import { cutText } from '../../core/clean-text';
import type { Recorded } from '../../core/packet';
import { howShown } from '../../words/shown';

/** As much of it as stands in an act. */
const MOST = 190;

/** How somebody has shown who they are, in words that can stand on paper; '' where they have shown nothing. */
export const knownBy = (events: readonly Recorded[], person: string): string =>
	cutText(howShown(events, person).replace(/[\u2066-\u2069]/g, ''), MOST);
