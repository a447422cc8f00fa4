import { isRefusal, type Refusal } from '../../src/lib/core/refusal';
import { byOffice } from '../../src/lib/press/word/office';
import { readWord, wordByPlainWay, type Written } from '../../src/lib/press/word/word';

/** All of it in one: by LibreOffice where the machine has it, else by the plain way. */
export async function wordToPdf(job: Parameters<typeof readWord>[0]): Promise<Written | Refusal> {
	const read = readWord(job);
	if (isRefusal(read)) return read;
	const { document, ...facts } = read;
	const made = await byOffice(document);
	if (made) return { ...facts, pdf: made, by: 'office' };
	const plain = await wordByPlainWay({ bytes: document });
	if (isRefusal(plain)) return plain;
	return { ...facts, pdf: plain.pdf, by: 'plain', notes: [...facts.notes, ...plain.notes] };
}
