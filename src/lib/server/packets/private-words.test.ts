import { describe, expect, it } from 'vitest';
import { answersOf, FROM, mails, ok, out, signs, testHouse, visitor } from '../../../../e2e/kit/house';
import { checkData } from '../check';
import { finish, openAndConsent, signingView } from '../signing';
import { templateFromPacket } from '../templates';
import { packetState } from './act';
import { beginCorrection, sendCorrection } from './correcting';
import { copyFile } from './copies';
import { saveDraft } from './drafts';
import { auditRecord, eventsOf } from './log';
import { newVersion } from './office';

const WORDS = 'Your fee is a third higher than the others’.';

describe('a word to one person alone', () => {
	it('is in their letter and on their page, and in nobody’s copy: the record has its digest', async () => {
		const t = await testHouse();
		const id = await out(t, [['maren'], ['kit']], { maren: { note: WORDS } });
		expect(mails(t.house, 'maren@post.example')[0]!.text).toContain(WORDS);
		const view = signingView(t.house, visitor(t.house, 'maren@post.example'));
		expect(JSON.stringify(view)).toContain(WORDS);
		await signs(t, 'maren@post.example');
		const state = await signs(t, 'kit@post.example');
		expect(packetState(t.house.db, state.packet).status).toBe('completed');
		const record = JSON.stringify(auditRecord(t.house.db, id));
		expect(record).not.toContain('third higher');
		expect(record).toMatch(/sha256:[0-9a-f]{64}/);
		const sealed = packetState(t.house.db, id);
		if (sealed.status !== 'completed') throw new Error(sealed.status);
		for (const what of ['paper', 'evidence'])
			expect(copyFile(t.house, sealed, what)!.bytes.includes('third higher')).toBe(false);
		expect(checkData(t.house.db).faults).toEqual([]);
		t.house.db.exec("UPDATE private_words SET words = 'Your fee is a third lower.'");
		expect(checkData(t.house.db).faults.join()).toContain('private words');
	});

	it('comes back to whoever puts the packet right, and is no change where it stays', async () => {
		const t = await testHouse();
		const id = await out(t, [['maren'], ['kit']], { maren: { note: WORDS }, kit: { note: WORDS } });
		const draft = ok(beginCorrection(t.house, t.odile, id));
		expect(draft.plan.people.map((one) => one.note)).toEqual([WORDS, WORDS]);
		const plan = {
			...draft.plan,
			people: draft.plan.people.map((one) => (one.id === 'kit' ? { ...one, note: 'Bring the viola.' } : one))
		};
		const saved = ok(saveDraft(t.house, t.odile, draft.id, draft.revision, plan));
		ok(sendCorrection(t.house, t.odile, draft.id, saved.revision));
		const changed = eventsOf(t.house.db, id).find((event) => event.type === 'PlanCorrected');
		expect(changed?.type === 'PlanCorrected' && changed.changes).toEqual([
			{ what: 'person changed', name: 'Kit', parts: ['letter'] }
		]);
		expect(JSON.stringify(auditRecord(t.house.db, id))).not.toMatch(/third higher|the viola/);
		expect(JSON.stringify(ok(templateFromPacket(t.house, t.odile, id)).plan)).not.toContain('sha256:');
		expect(ok(newVersion(t.house, t.odile, id, 'anew')).plan.people[0]!.note).toBe(WORDS);
	});

	it('is also a letter of one’s own: in their mail and on their page, by its digest in the record', async () => {
		const t = await testHouse();
		const own = { subject: 'Only for you, {maren.name}', message: `Dear {maren.name}, ${WORDS}` };
		const id = await out(t, [['maren'], ['kit']], { maren: own });
		const [letter] = mails(t.house, 'maren@post.example');
		expect([letter!.subject, letter!.text]).toEqual([
			'Only for you, Maren',
			expect.stringContaining(`Dear Maren, ${WORDS}`)
		]);
		expect(JSON.stringify(signingView(t.house, visitor(t.house, 'maren@post.example')))).toContain(WORDS);
		expect(JSON.stringify(auditRecord(t.house.db, id))).not.toMatch(/third higher|Only for you/);
		expect(ok(beginCorrection(t.house, t.odile, id)).plan.people[0]).toMatchObject(own);
		expect(checkData(t.house.db).faults).toEqual([]);
		await expect(out(t, [['kit']], { kit: { message: 'Dear {nobody.there}' } })).rejects.toThrow('value-unknown');
	});

	it('of somebody who names the next one is kept apart too; a digest that is typed is no key', async () => {
		const t = await testHouse();
		const id = await out(
			t,
			[['maren'], ['kit']],
			{ maren: { note: `sha256:${'a'.repeat(64)}` }, kit: { name: '', email: '', role: 'Approver', namedBy: 'maren' } },
			{}
		);
		const who = visitor(t.house, 'maren@post.example');
		ok(openAndConsent(t.house, who, FROM));
		const names = { kit: { name: 'Kit', email: 'kit@post.example', note: WORDS } };
		ok(finish(t.house, who, answersOf(who.packet.plan.fields, 'maren'), FROM, { names }));
		await t.runner.drain();
		expect(mails(t.house, 'kit@post.example')[0]!.text).toContain(WORDS);
		expect(JSON.stringify(auditRecord(t.house.db, id))).not.toContain('third higher');
		// the words of one packet are not had by writing their digest as a word in another
		const { digest } = t.house.db
			.prepare<[string], { digest: string }>('SELECT digest FROM private_words WHERE words = ?')
			.get(WORDS)!;
		await out(t, [['zoë']], { zoë: { note: `sha256:${digest}` } });
		expect(mails(t.house, 'zoë@post.example')[0]!.text).not.toContain('third higher');
	});
});
