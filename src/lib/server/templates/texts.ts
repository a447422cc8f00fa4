import { refuse, type Refusal } from '../../core/refusal';
import type { House } from '../house';
import { newId } from '../ids';

/** A letter kept for writing it again; the whole office has it. */
export interface SavedText {
	id: string;
	title: string;
	subject: string;
	message: string;
}

const MOST = 500;

export function savedTexts(house: House): SavedText[] {
	return house.db
		.prepare<[number], SavedText>('SELECT id, title, subject, message FROM saved_texts ORDER BY title LIMIT ?')
		.all(MOST);
}

/** Keeps a letter under a title; one that has the title already is replaced. */
export function saveText(house: House, text: Omit<SavedText, 'id'>): SavedText[] | Refusal {
	const title = text.title.trim();
	if (title === '') return refuse('no-title', 'Give the text a title to find it by.', 'title');
	house.db.prepare('DELETE FROM saved_texts WHERE title = ?').run(title);
	house.db
		.prepare('INSERT INTO saved_texts (id, title, subject, message, saved_at) VALUES (?, ?, ?, ?, ?)')
		.run(newId(house.now()), title, text.subject, text.message, house.now().toISOString());
	return savedTexts(house);
}

export function dropText(house: House, id: string): SavedText[] {
	house.db.prepare('DELETE FROM saved_texts WHERE id = ?').run(id);
	return savedTexts(house);
}
