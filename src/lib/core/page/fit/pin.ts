import type { ShownRect } from '../geometry';
import { bare, type Stream } from './stream';

/** One place of a phrase. */
export interface PhrasePlace {
	/** index of its first word in the stream */
	token: number;
	page: number;
	/** round all of it that stands on its first line, as shown */
	rect: ShownRect;
	base: number;
}

/** Every place of a phrase, in reading order; capitals, accents and the marks round words don't matter. */
export function phraseIn(stream: Stream, phrase: string): PhrasePlace[] {
	const words = phrase
		.split(/\s+/)
		.map(bare)
		.filter((word) => word !== '');
	if (words.length === 0) return [];
	const places: PhrasePlace[] = [];
	for (let i = 0; i + words.length <= stream.tokens.length; i++) {
		if (!words.every((word, n) => stream.tokens[i + n]!.text === word)) continue;
		const first = stream.tokens[i]!;
		const line = stream.tokens.slice(i, i + words.length).filter((t) => t.row === first.row);
		const right = Math.max(...line.map((t) => t.word.left + t.word.width));
		places.push({
			token: i,
			page: first.page,
			rect: { left: first.word.left, top: first.row.top, width: right - first.word.left, height: first.row.height },
			base: first.row.base
		});
	}
	return places;
}
