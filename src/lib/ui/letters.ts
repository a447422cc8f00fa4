/** Faces for letters that the page's own face lacks, each fetched only when such a letter is shown or typed. */
const FACES: [RegExp, () => Promise<unknown>][] = [
	[/[\p{Script=Greek}\p{Script=Cyrillic}]/u, () => import('@fontsource/noto-sans/400.css')],
	[/\p{Script=Arabic}/u, () => import('@fontsource/noto-sans-arabic/400.css')],
	[/\p{Script=Hebrew}/u, () => import('@fontsource/noto-sans-hebrew/400.css')],
	[/\p{Script=Devanagari}/u, () => import('@fontsource/noto-sans-devanagari/400.css')],
	[/[\p{Script=Hiragana}\p{Script=Katakana}]/u, () => import('@fontsource/noto-sans-jp/400.css')],
	[/\p{Script=Hangul}/u, () => import('@fontsource/noto-sans-kr/400.css')],
	[/\p{Script=Han}/u, () => import('@fontsource/noto-sans-sc/400.css')]
];
const fetched = new Set<number>();

/** Sees to it that every letter of the text has a face. What can't be fetched is shown in whatever the device has. */
export function wantLetters(text: string): void {
	FACES.forEach(([letters, fetch], i) => {
		if (fetched.has(i) || !letters.test(text)) return;
		fetched.add(i);
		fetch().catch(() => fetched.delete(i));
	});
}
