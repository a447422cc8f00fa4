/** How wide a letter is on average, in parts of the font's size: measured on the shipped sans over English and German prose. */
const LETTER = 0.52;
const LEADING = 1.25;

/** About how many points of width and height a text needs when it is broken into lines of at most `width` points. */
export function textNeeds(text: string, width: number, size: number): { width: number; height: number } {
	const perLine = Math.max(1, Math.floor((width - 4) / (size * LETTER)));
	let lines = 0;
	for (const paragraph of text.split('\n')) {
		let used = 0;
		lines += 1;
		for (const word of paragraph.split(' ')) {
			if (used > 0 && used + 1 + word.length > perLine) {
				lines += 1;
				used = 0;
			}
			used += (used > 0 ? 1 : 0) + word.length;
			lines += Math.max(0, Math.ceil(word.length / perLine) - 1);
		}
	}
	return { width: Math.min(width, size * LETTER + 4), height: lines * size * LEADING };
}
