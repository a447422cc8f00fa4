import { describe, expect, it } from 'vitest';
import { hasAll, pieceFound, searchedWords } from './found';

describe('words that were searched for', () => {
	it('are found by their beginnings, in whatever case, accents and script', () => {
		const text = 'Die Bürgschaft des Entleihers beträgt € 400; Юрій підписав, 乐器 wird geliehen';
		expect(searchedWords('  BÜRG, 乐器!')).toEqual(['burg', '乐器']);
		expect(hasAll(text, searchedWords('burg entleih'))).toBe(true);
		expect(hasAll(text, searchedWords('burg harfe'))).toBe(false);
		expect(hasAll(text, searchedWords('юрій 乐'))).toBe(true);
		expect(hasAll(text, [])).toBe(false);
	});
	it('are shown with what stands around the first of them', () => {
		const text = 'one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen';
		expect(pieceFound(text, ['nin'])).toEqual({
			before: '… three four five six seven eight',
			word: 'nine',
			after: 'ten eleven twelve thirteen fourteen fifteen'
		});
		expect(pieceFound('£11,400 in all', ['11'])).toEqual({ before: '', word: '£11,400', after: 'in all' });
		expect(pieceFound(text, ['zebra'])).toBeNull();
	});
	it('are no more than ten, of a search that is no longer than two hundred letters', () => {
		expect(searchedWords('a b c d e f g h i j k l')).toHaveLength(10);
		expect(searchedWords('x'.repeat(10_000))[0]).toHaveLength(200);
	});
});
