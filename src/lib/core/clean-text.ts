/**
 * Text as it may be kept: well-formed Unicode, without characters that can't be seen but change what is. Line breaks and
 * tabs stay where a text may have lines.
 */

/** Half surrogate pairs break JSON, UTF-8 and every digest over them; the standard's replacement stands in their place. */
const wellFormed = (text: string): string => (text.isWellFormed() ? text : text.toWellFormed());

/**
 * C0 but tab and line feed, DEL, C1 (ISO 6429), the byte order mark, interlinear annotations; and embeddings, overrides and
 * isolates (UAX #9 §2), as what one leaves open turns the words of others around. The marks LRM, RLM and ALM, which scripts
 * need and which reach no further than themselves, stay.
 */
const UNSEEN = /(?![\t\n])\p{Cc}|[\u202a-\u202e\u2066-\u2069\ufeff\ufff9-\ufffb]/gu;

/** A text with lines: CR LF, CR, NEL and the separators U+2028 and U+2029 are line feeds. */
export function cleanText(text: string): string {
	return wellFormed(text)
		.replace(/\r\n?|[\x85\u2028\u2029]/g, '\n')
		.replace(UNSEEN, '');
}

/** A text of one line: what breaks lines is a space. */
export function oneLine(text: string): string {
	return cleanText(text).replace(/[\n\t]+/g, ' ');
}

/** Letters that are read from right to left, and the marks that turn what is beside them. */
const TURNING =
	/[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\u061c\u200e\u200f]/u;

/** A name or title within a sentence: what turns stays within it (FSI … PDI, UAX #9 §2.3), so that it can't move the words around. */
export function isolated(text: string): string {
	return TURNING.test(text) ? `\u2068${text}\u2069` : text;
}

const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' });
/** Longer than any letter people see; a cluster beyond it is cut all the same. */
const LONGEST_CLUSTER = 64;

/** At most so many UTF-16 units, cut only between what people see as letters (UAX #29). */
export function cutText(text: string, most: number): string {
	const whole = wellFormed(text);
	if (whole.length <= most) return whole;
	const cut = graphemes.segment(whole.slice(0, most + LONGEST_CLUSTER)).containing(most)!.index;
	return cut > most - LONGEST_CLUSTER
		? whole.slice(0, cut)
		: whole
				.slice(0, most)
				.toWellFormed()
				.replace(/\ufffd$/, '');
}
