import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { engagement, field } from '../../../e2e/kit/plans';
import type { Standing } from '../core/packet';
import { toShown } from '../core/page';
import { copyFields } from '../core/plan';
import { addPapers, addPerson, movePaperTo, removePaper, removePerson } from '../core/plan';
import { placeField, shiftFields } from '../core/plan';
import { begin, changed, redone, undone } from '../core/plan';
import { weave } from './bench/weave';
import { day } from './dates';
import { typedDecimal } from './decimals';
import { post } from './post';
import { toStrokes } from './signing/strokes';
import { drawn, monogram } from './thread/stops';

describe('undo and redo', () => {
	it('lead back to the opening of the Bench and forth again, whatever was done', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.constantFrom('a', 'b'), fc.nat(9), fc.boolean()), { maxLength: 60 }),
				(steps) => {
					let h = begin(-1);
					for (const [name, value, burst] of steps) h = changed(h, name, value, burst);
					const end = h.now;
					while (h.past.length > 0) h = undone(h);
					expect(h.now).toBe(-1);
					while (h.future.length > 0) h = redone(h);
					expect(h.now).toBe(end);
				}
			)
		);
	});
	it('take a burst of one kind as one step, and drop what was undone when something new is done', () => {
		let h = begin('');
		for (const text of ['a', 'ab', 'abc']) h = changed(h, 'title', text, true);
		expect(undone(h).now).toBe('');
		h = changed(undone(h), 'title', 'x', true);
		expect(redone(h).now).toBe('x');
		expect(undone(begin('a')).now).toBe('a');
	});
});

describe('edits of a plan', () => {
	it('place a field with its middle where the page was pressed, on the page at its edges, upright on turned ones', () => {
		const p = engagement();
		p.papers[0]!.pages[0]!.rotate = 90;
		const page = p.papers[0]!.pages[0]!;
		const { plan, field: id } = placeField(p, 'signature', 'maren', 'paper', 0, { x: 300, y: 200 });
		const at = toShown(page, plan.fields.find((f) => f.id === id)!.rect);
		expect([at.left + at.width / 2, at.top + at.height / 2, at.width > at.height]).toEqual([300, 200, true]);
		const corner = placeField(p, 'text', 'maren', 'paper', 0, { x: 0, y: 0 });
		expect(toShown(page, corner.plan.fields.at(-1)!.rect)).toMatchObject({ left: 0, top: 0 });
	});
	it('never move a field off its page', () => {
		fc.assert(
			fc.property(fc.integer({ min: -2000, max: 2000 }), fc.integer({ min: -2000, max: 2000 }), (left, top) => {
				const p = engagement();
				const at = toShown(p.papers[0]!.pages[0]!, shiftFields(p, ['maren-sig'], { left, top }).fields[0]!.rect);
				expect(at.left >= 0 && at.top >= 0 && at.left + at.width <= 595.01 && at.top + at.height <= 842.01).toBe(true);
			})
		);
	});
	it('leave the fields of somebody taken off the route, as nobody’s', () => {
		const p = removePerson(engagement(), 'maren');
		expect(p.stops).toHaveLength(3);
		expect(p.fields.map((f) => f.person)).toEqual([null, 'tamsin']);
	});
	it('take a document’s fields with it, put documents in another order, and take the first one’s name as title', () => {
		const one = addPapers({ ...engagement(), title: '' }, [
			{ name: 'Second', digest: 'b'.repeat(64), pages: [{ width: 9, height: 9, rotate: 0 }] }
		]);
		expect(one.title).toBe('Second');
		const id = one.papers[1]!.id;
		expect(movePaperTo(one, id, 0).papers.map((p) => p.name)).toEqual(['Second', 'Paper']);
		expect(movePaperTo(one, id, 2)).toBe(one);
		expect(removePaper(one, 'paper').fields).toEqual([]);
	});
	it('copy with new ids and add people at a stop of their own', () => {
		const { plan, fields } = copyFields(engagement(), ['maren-sig']);
		expect(fields).toHaveLength(1);
		expect(plan.fields).toHaveLength(3);
		const added = addPerson(plan);
		expect(added.plan.stops.at(-1)!.people).toEqual([added.person]);
		expect(field('x', 'text', 'a').id).toBe('x');
	});
	it('tell sixteen people apart by weave and ink', () => {
		expect(new Set(Array.from({ length: 16 }, (_, i) => weave(i))).size).toBe(16);
	});
});

describe('the thread', () => {
	const now = '2026-11-24T09:00:00Z';
	const one = (duty: string, standing: Standing['is'], since: string | null = null, name = 'Ingrid Halloran') => ({
		id: name,
		name,
		duty,
		standing,
		since
	});
	it.each([
		['done', [one('signs', 'done')]],
		['here', [one('signs', 'done'), one('signs', 'notified', now)]],
		['here', [one('signs', 'opened', now)]],
		['to come', [one('signs', 'waiting')]],
		['trouble', [one('signs', 'unreachable', now)]],
		['trouble', [one('signs', 'done'), one('signs', 'declined', now)]],
		['copy', [one('gets a copy', 'waiting')]],
		['by rule', [{ ...one('signs', 'waiting'), byRule: true as const }]],
		['left out', [one('signs', 'skipped')]],
		['done', [one('signs', 'done'), one('signs', 'skipped')]],
		['trouble', [one('signs', 'held', now)]]
	] as const)('draws %s', (node, people) => expect(drawn([[...people]], now)[0]!.node).toBe(node));
	it('reads every stop out as a sentence', () => {
		const stops = drawn(
			[
				[one('signs', 'done', now, 'Maren')],
				[one('approves', 'notified', '2026-11-21T08:00:00Z')],
				[one('gets a copy', 'waiting', null, 'Ruben')]
			],
			now
		);
		expect(stops.map((s) => s.sentence)).toEqual([
			'Stop 1 of 3: Maren has signed',
			'Stop 2 of 3: Ingrid Halloran approves, has had it for 3 days',
			'Stop 3 of 3: Ruben gets a copy'
		]);
		expect(stops[1]!.days).toBe(3);
	});
	it.each([
		['Maren Lindqvist', 'ML'],
		['ruben vasquez-lind', 'RV'],
		['Zoë', 'ZO'],
		['', '?'],
		['Ελένη Παππά', 'ΕΠ']
	])('calls %s %s', (name, letters) => expect(monogram(name)).toBe(letters));
});

describe('a drawn mark', () => {
	it('is cut to its ink and keeps its shape', () => {
		fc.assert(
			fc.property(
				fc.array(fc.record({ x: fc.integer({ min: 0, max: 600 }), y: fc.integer({ min: 0, max: 300 }) }), {
					minLength: 2,
					maxLength: 40
				}),
				(points) => {
					const { strokes, ratio } = toStrokes([{ points }])!;
					const xs = strokes[0]!.filter((_, i) => i % 2 === 0);
					const ys = strokes[0]!.filter((_, i) => i % 2 === 1);
					expect(Math.min(...ys)).toBe(0);
					expect(Math.min(...xs)).toBeGreaterThanOrEqual(0);
					expect(Math.max(...xs)).toBeLessThanOrEqual(1000);
					expect(Math.max(...ys)).toBeLessThanOrEqual(ratio * 1000 + 25);
				}
			)
		);
		expect(toStrokes([])).toBeNull();
	});
});

it('says days as people do', () => {
	const at = (d: string) => day(d, 'Europe/London', '2026-11-24T09:00:00Z');
	expect(
		[
			'2026-11-24T22:00:00Z',
			'2026-11-25T00:30:00Z',
			'2026-11-23T23:00:00Z',
			'2026-12-04T23:59:59Z',
			'2027-01-04T10:00:00Z'
		].map(at)
	).toEqual(['today', 'tomorrow', 'yesterday', '4 Dec', '4 Jan 2027']);
});

describe('asking the server', () => {
	afterEach(() => {
		vi.useRealTimers();
		vi.unstubAllGlobals();
	});
	const answers = (...statuses: number[]) => {
		const said = vi.fn(async () => {
			const status = statuses.shift()!;
			return new Response(JSON.stringify(status === 200 ? { revision: 2 } : { say: 'Busy.' }), { status });
		});
		vi.useFakeTimers();
		vi.stubGlobal('fetch', said);
		return said;
	};
	it('goes on by itself where it is busy for a while', async () => {
		const said = answers(503, 503, 200);
		const saved = post('/save', {}, 'Kept.');
		await vi.runAllTimersAsync();
		expect(await saved).toEqual({ revision: 2 });
		expect(said).toHaveBeenCalledTimes(3);
	});
	it('gives up after a few times with its sentence, and says what is kept', async () => {
		const said = answers(503, 503, 503, 503, 503);
		const saved = post('/save', {}, 'Kept.');
		await vi.runAllTimersAsync();
		expect(await saved).toEqual({ wrong: 'Busy. Kept.' });
		expect(said).toHaveBeenCalledTimes(4);
	});
	it('asks once where it is refused', async () => {
		const said = answers(422);
		expect(await post('/save', {}, 'Kept.')).toEqual({ wrong: 'Busy. Kept.' });
		expect(said).toHaveBeenCalledTimes(1);
	});
});

describe('a bound that is typed', () => {
	it('is a number in plain notation, none, or refused', () => {
		expect(['12,5', ' -3 ', '', '  ', '18 years', '1.000,5', '1e9', 'many'].map(typedDecimal)).toEqual([
			'12.5',
			'-3',
			'',
			'',
			null,
			null,
			null,
			null
		]);
	});
});
