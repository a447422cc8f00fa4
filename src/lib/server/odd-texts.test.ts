import { describe, expect, it } from 'vitest';
import { answersOf, FROM, linkTo, ok, out, realPlan, testHouse, visitor, type TestHouse } from '../../../e2e/kit/house';
import { field } from '../../../e2e/kit/plans';
import { isRefusal } from '../core/refusal';
import { openPdf } from '../press/pdfium';
import { formOf } from './forms';
import { newBatch, readBatch, runBatch } from './batches';
import { checkData } from './check';
import { needsYou } from './desk';
import { addHoliday } from './holidays';
import { folderNamed } from './folders';
import { BY_ITSELF } from './office-record';
import { packetState } from './packets/act';
import { copyFile } from './packets/copies';
import { newDraft, saveDraft } from './packets/drafts';
import { withdraw } from './packets/office';
import { scheduleDraft } from './packets/schedule';
import { checkedPlan } from './packets/plan-border';
import { paperName } from './papers';
import { organisation, setOrganisation } from './settings';
import { decline, finish, openAndConsent, visit } from './signing';
import { declineBorder, finishBorder } from './signing/border';
import { newTemplate, putInUse } from './templates';

/** Texts that have stopped something somewhere: halves of pairs, controls, other directions, what is cut in a letter. */
const ODD = [
	'\ud83c',
	'\udfbb',
	'Loan \ud83c\ud83c of \udfbb',
	`${'x'.repeat(199)}🎻`,
	`${'e\u0301'.repeat(120)}`,
	'\0\x01\x1b[31m',
	'\u202egnp.exe',
	'a\r\nEvents\r\n2026 signed',
	'\uffff\ufffe',
	'👩‍👩‍👧'.repeat(30),
	'=1+1',
	'<script>alert(1)</script>',
	'$& %s $1',
	'..\\..\\x',
	'خانه\u200cها \u200f'
];

/** The same plan with an odd text wherever it has a text of its own; longer ones only where they are permitted. */
function oddPlan(plan: Awaited<ReturnType<typeof realPlan>>, odd: string, folder: string) {
	const fits = (most: number) => [...odd].slice(0, most).join('');
	return {
		...plan,
		title: fits(200),
		subject: fits(200),
		message: odd,
		sending: { type: fits(80), folder, description: odd, ownReference: fits(80) },
		people: plan.people.map((p) => ({
			...p,
			name: `N${fits(190)}`,
			organisation: fits(200),
			jobTitle: fits(200),
			role: fits(80),
			note: odd
		})),
		papers: plan.papers.map((p) => ({ ...p, name: `P${fits(190)}` })),
		fields: [
			...plan.fields.map((f) => ({ ...f, label: fits(200), help: fits(200) })),
			field('note', 'note', 'sender', { key: '', settings: { text: odd }, page: 1 }),
			field('pick', 'choice', plan.people[0]!.id, {
				required: false,
				settings: { options: [{ value: `v${fits(190)}`, text: fits(200) }] }
			})
		]
	};
}

/** On the evidence sheet only the record's own numbers stand where numbers stand, one after another from 1. */
async function noForgedRow(t: TestHouse, packet: string): Promise<void> {
	const state = packetState(t.house.db, packet);
	if (state.status === 'none') throw new Error('no packet');
	const sheet = await openPdf(copyFile(t.house, state, 'evidence')!.bytes);
	if (typeof sheet === 'string') throw new Error(sheet);
	const left = Array.from({ length: sheet.pages }, (_, page) => sheet.words(page))
		.flat()
		.filter((word) => word.x < 70 && word.y > 60 && /^\d+$/.test(word.text))
		.map((word) => Number(word.text));
	sheet.close();
	expect(left.length).toBeGreaterThan(3);
	expect(left).toEqual(left.map((_, i) => i + 1));
}

const jobsLeft = (t: TestHouse) =>
	t.house.db.prepare('SELECT key, error FROM jobs WHERE done_at IS NULL OR set_aside_at IS NOT NULL').all();

describe.each(ODD)('a text like %j', (odd) => {
	it('in every place of a plan, its people, answers and letters goes its way to the seal, and stops nobody', async () => {
		const t = await testHouse();
		const folder = folderNamed(t.house, BY_ITSELF, odd);
		const plan = ok(checkedPlan(oddPlan(await realPlan(t.house, [['maren']]), odd, folder)));
		expect(JSON.stringify(plan)).not.toMatch(/\\ud[89a-f]|\\u00[01]|\\u202e/i);
		const draft = newDraft(t.house, t.odile, plan);
		const saved = ok(saveDraft(t.house, t.odile, draft.id, draft.revision, oddPlan(plan, odd, folder)));
		const scheduled = ok(
			scheduleDraft(t.house, t.odile, draft.id, saved.revision, new Date(t.clock.now + 60_000).toISOString())
		);
		expect(scheduled.sendAt).not.toBeNull();
		t.clock.now += 120_000;
		await t.runner.drain();
		const waits = needsYou(t.house, t.odile);
		if (waits[0]?.what === 'draft') {
			// letters that no font has are said with the draft, which is kept
			expect(waits).toMatchObject([{ fault: expect.stringContaining('other letters') }]);
			expect(jobsLeft(t)).toEqual([]);
			return;
		}
		expect(waits).toEqual([]);

		const who = visitor(t.house, 'maren@post.example');
		ok(openAndConsent(t.house, who, FROM));
		const given = answersOf(
			who.packet.plan.fields.filter((f) => f.kind !== 'choice'),
			'maren'
		);
		const answers = Object.fromEntries(
			Object.entries(given).map(([id, answer]) => [id, 'way' in answer ? answer : { text: odd.slice(0, 200) }])
		);
		const body = ok(finishBorder({ answers: structuredClone(answers) }));
		// what can't be printed is said to the signer, who then writes something else
		const done = finish(t.house, who, body.answers as never, FROM);
		if (isRefusal(done)) {
			expect(done.say.length).toBeGreaterThan(20);
			ok(finish(t.house, who, given, FROM));
		}
		await t.runner.drain();
		expect(jobsLeft(t)).toEqual([]);
		expect(checkData(t.house.db).faults).toEqual([]);
		await noForgedRow(t, who.packet.packet);
	});
});

it('odd texts in templates, sheets, settings, holidays, reasons and file names stop nothing', async () => {
	const t = await testHouse();
	const plan = await realPlan(t.house, [['steward']]);
	for (const given of ODD) {
		const form = new FormData();
		form.set('text', given);
		const odd = formOf(form).lines('text');
		const draft = newTemplate(
			t.house,
			t.odile,
			{ ...plan, people: plan.people.map((p) => ({ ...p, role: 'Steward', name: '', email: '' })) },
			odd
		);
		const { template } = ok(putInUse(t.house, t.odile, draft.id, draft.revision, odd));
		const cell = `"${odd.replaceAll('"', '""')}"`;
		const file = Buffer.from(`Steward name,Steward email,title\n${cell},s@post.example,${cell}\n`);
		const batch = await newBatch(t.house, t.odile, template, `${odd}.csv`, file);
		if (!isRefusal(batch)) runBatch(t.house, t.odile, batch.id);
		await t.runner.drain();
		if (!isRefusal(batch)) expect(ok(readBatch(t.house, batch.id)).going).toBe('rests');

		const named = setOrganisation(t.house.db, { ...organisation(t.house.db), name: odd.slice(0, 60) });
		if (!isRefusal(named)) expect(named.name.isWellFormed()).toBe(true);
		addHoliday(t.house, '2027-01-01', odd);
		expect(paperName(`${odd}.pdf`).isWellFormed()).toBe(true);
		expect(paperName(`${odd}.pdf`).length).toBeLessThanOrEqual(200);

		const packet = await out(t, [['maren']]);
		ok(withdraw(t.house, t.odile, packet, odd));
		const other = await out(t, [['kit']]);
		const who = ok(visit(t.house, linkTo(t.house, 'kit@post.example')));
		ok(openAndConsent(t.house, who, FROM));
		ok(decline(t.house, who, ok(declineBorder({ reason: odd.slice(0, 500) })).reason, FROM));
		await t.runner.drain();
		expect(jobsLeft(t)).toEqual([]);
		expect(other).not.toBe(packet);
	}
	const texts = t.house.db.prepare<[], { all: string }>('SELECT group_concat(body) AS "all" FROM events').get()!.all;
	expect(texts).not.toMatch(/\\ud[89a-f]/i);
	expect(checkData(t.house.db).faults).toEqual([]);
});
