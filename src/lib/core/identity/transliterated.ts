/**
 * Names as machine-readable zones write them (ICAO 9303-3 §6, tables A to C): A to Z alone. Where the standard permits several ways,
 * all of them.
 */

/** Latin letters that are not a plain one with marks; first what the standard recommends. */
const LATIN: Record<string, string[]> = {
	Ä: ['AE', 'A'],
	Ö: ['OE', 'O'],
	Ü: ['UE', 'UXX', 'U'],
	Å: ['AA', 'A'],
	Æ: ['AE'],
	Ø: ['OE', 'O'],
	Œ: ['OE'],
	Ñ: ['N', 'NXX'],
	ß: ['SS'],
	ẞ: ['SS'],
	Þ: ['TH'],
	Ð: ['D'],
	Đ: ['D', 'DJ'],
	Ħ: ['H'],
	ı: ['I'],
	Ĳ: ['IJ'],
	ĸ: ['Q', 'K'],
	Ł: ['L'],
	Ŋ: ['N'],
	Ŧ: ['T'],
	Ŀ: ['L'],
	Ə: ['E', 'A']
};

const CYRILLIC: Record<string, string[]> = {
	А: ['A'],
	Б: ['B'],
	В: ['V'],
	Г: ['G', 'H'],
	Ґ: ['G'],
	Ѓ: ['G'],
	Ғ: ['F', 'GH'],
	Д: ['D'],
	Ђ: ['D', 'DJ'],
	Е: ['E'],
	Ё: ['E', 'IO'],
	Є: ['IE', 'YE'],
	Ж: ['ZH', 'Z'],
	З: ['Z'],
	Ѕ: ['DZ'],
	И: ['I', 'Y'],
	І: ['I'],
	Ї: ['I', 'YI'],
	Й: ['I', 'Y'],
	Ј: ['J'],
	К: ['K'],
	Ќ: ['K', 'KJ'],
	Л: ['L'],
	Љ: ['LJ'],
	М: ['M'],
	Н: ['N'],
	Њ: ['NJ'],
	О: ['O'],
	П: ['P'],
	Р: ['R'],
	С: ['S'],
	Т: ['T'],
	Ћ: ['C', 'D'],
	У: ['U'],
	Ў: ['U'],
	Ұ: ['U'],
	Ф: ['F'],
	Х: ['KH', 'H'],
	Ц: ['TS', 'C'],
	Ч: ['CH', 'C'],
	Џ: ['DZ'],
	Ш: ['SH', 'S'],
	Щ: ['SHCH', 'SHT'],
	Ъ: ['IE', ''],
	Ы: ['Y'],
	Ь: ['', 'I'],
	Э: ['E'],
	Ю: ['IU', 'YU'],
	Я: ['IA', 'YA']
};

const GREEK: Record<string, string[]> = {
	Α: ['A'],
	Β: ['V'],
	Γ: ['G'],
	Δ: ['D'],
	Ε: ['E'],
	Ζ: ['Z'],
	Η: ['I'],
	Θ: ['TH'],
	Ι: ['I'],
	Κ: ['K'],
	Λ: ['L'],
	Μ: ['M'],
	Ν: ['N'],
	Ξ: ['X'],
	Ο: ['O'],
	Π: ['P'],
	Ρ: ['R'],
	Σ: ['S'],
	Τ: ['T'],
	Υ: ['Y', 'F', 'V'],
	Φ: ['F'],
	Χ: ['CH'],
	Ψ: ['PS'],
	Ω: ['O']
};

const ARABIC: Record<string, string[]> = {
	ء: ['XE', ''],
	آ: ['XAA', 'A'],
	أ: ['XAE', 'A'],
	ؤ: ['U'],
	إ: ['I'],
	ئ: ['XI', 'Y'],
	ا: ['A'],
	ب: ['B'],
	ة: ['XTA', 'XAH', 'A'],
	ت: ['T'],
	ث: ['XTH', 'TH'],
	ج: ['J'],
	ح: ['XH', 'H'],
	خ: ['XKH', 'KH'],
	د: ['D'],
	ذ: ['XDH', 'DH'],
	ر: ['R'],
	ز: ['Z'],
	س: ['S'],
	ش: ['XSH', 'SH'],
	ص: ['XSS', 'S'],
	ض: ['XDZ', 'D'],
	ط: ['XTT', 'T'],
	ظ: ['XZZ', 'Z'],
	ع: ['E', ''],
	غ: ['G', 'GH'],
	ف: ['F'],
	ق: ['Q'],
	ك: ['K'],
	ل: ['L'],
	م: ['M'],
	ن: ['N'],
	ه: ['H'],
	و: ['W', 'U', 'O'],
	ى: ['XAY', 'A'],
	ي: ['Y', 'I']
};

const LETTERS: Record<string, string[]> = { ...LATIN, ...CYRILLIC, ...GREEK, ...ARABIC };

/** Ways that one word can be written; more are not tried. */
const MOST_WAYS = 64;

/**
 * All ways in which a word may stand in a zone; none where it has a letter that the standard has no way for.
 * @param word of a name, in any script, without blanks
 */
export function waysOfWriting(word: string): string[] {
	let ways = [''];
	for (const letter of word.normalize('NFC')) {
		const steps = stepsFor(letter);
		if (!steps) return [];
		ways = ways.flatMap((way) => steps.map((step) => way + step));
		if (ways.length > MOST_WAYS) ways = ways.slice(0, MOST_WAYS);
	}
	return [...new Set(ways)];
}

function stepsFor(letter: string): string[] | null {
	const upper = letter === 'ß' || letter === 'ı' ? letter : letter.toUpperCase();
	const known = LETTERS[letter] ?? LETTERS[upper];
	if (known) return known;
	// signs between letters are left out, and marks go with their letter (§6, A)
	if (/^[\p{M}\p{P}\p{Lm}\p{Cf}]$/u.test(letter)) return [''];
	const plain = upper.normalize('NFKD').replace(/\p{M}/gu, '');
	if (/^[A-Z]+$/.test(plain)) return [plain];
	const base = LETTERS[plain];
	return base ?? null;
}
