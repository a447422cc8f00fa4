import { describe, expect, it } from 'vitest';
import { engagement, field, plan } from '../../../../../e2e/kit/plans';
import { isAddress, preflight, type Field, type KindName, type Plan } from '../index';
import { provideAll } from '../../field/formats/all-checkers';

provideAll();

const codes = (p: Plan) => preflight(p).map((f) => f.code);
const changed = (change: (p: Plan) => void) => {
	const p = structuredClone(engagement());
	change(p);
	return p;
};

describe('preflight', () => {
	it('lets the engagement go', () => expect(codes(engagement())).toEqual([]));
	it('lets an approver go without fields', () => expect(codes(plan([['ingrid:approves']]))).toEqual([]));
	it.each<[string, Plan, string[]]>([
		['no title', changed((p) => (p.title = ' ')), ['no-title']],
		['no documents', changed((p) => (p.papers = [])), ['no-papers', 'field-lost', 'field-lost']],
		['nobody', plan([]), ['no-signer']],
		['only somebody who gets a copy', plan([['ruben:gets a copy']]), ['no-signer']],
		['a person without a name', changed((p) => (p.people[1]!.name = '')), ['no-name']],
		['an address that can’t be one', changed((p) => (p.people[1]!.email = 'maren@post')), ['bad-address']],
		[
			'a person twice at a stop',
			changed((p) => {
				p.stops[1]!.people.push('tamsin');
				p.stops.splice(2, 1);
				p.people[2]!.email = 'MAREN@post.example';
			}),
			['twice-at-stop']
		],
		['a person at two stops', changed((p) => p.stops[2]!.people.push('maren')), ['not-on-route']],
		['a person at no stop', changed((p) => p.stops.splice(2, 1)), ['not-on-route', 'field-without-person']],
		['somebody on the route who is not there', changed((p) => p.stops[0]!.people.push('ghost')), ['unknown-person']],
		['a signer with nothing to sign', changed((p) => p.fields.splice(0, 1)), ['nothing-to-sign']],
		['somebody who fills in with nothing to fill', plan([['maren'], ['kit:fills in']]), ['nothing-to-fill']],
		['a copy with fields', changed((p) => p.fields.push(field('x', 'text', 'ruben'))), ['copy-with-fields']],
		['a field of nobody', changed((p) => p.fields.push(field('x', 'text', null))), ['field-without-person']],
		['a field on a page that is gone', changed((p) => (p.fields[0]!.page = 7)), ['field-lost']],
		['a field over the edge', changed((p) => (p.fields[0]!.rect.x = 560)), ['field-off-page']]
	])('finds %s', (_, p, want) => expect(codes(p)).toEqual(want));
	it('names the place of each', () => {
		const [first] = preflight(changed((p) => (p.fields[1]!.rect.y = -20)));
		expect(first).toMatchObject({ place: { what: 'field', id: 'tamsin-sig' } });
		expect(first!.say).toContain('page 1');
	});
});

describe('preflight of fields', () => {
	const under = (...fields: Field[]) =>
		plan([['maren'], ['tamsin']], { fields: [...plan([['maren'], ['tamsin']]).fields.map(apart), ...fields] });
	let row = 0;
	// each in a row of its own, so that nothing covers anything by chance
	const apart = (f: Field): Field => ({
		...f,
		rect: { ...f.rect, x: 40 + 180 * (row % 3), y: 30 + 26 * (Math.floor(row++ / 3) % 24) }
	});
	const one = (kind: KindName, more: Partial<Field> = {}, person = 'maren') =>
		apart(field(`f${row}`, kind, person, more));
	const box = (value: string, more: Partial<Field> = {}) =>
		one('ticks', { key: 'extras', rect: { x: 0, y: 0, width: 12, height: 12 }, settings: { value }, ...more });
	const list = one('choice', { key: 'town', settings: { options: [{ value: 'a', text: 'A' }] } });

	// what is wrong, the plan, the finding's code, and whether it has a cure in one press
	it.each<[string, Plan, string, boolean]>([
		['a list without choices', under(one('choice')), 'no-options', false],
		['an empty note', under(one('note', {}, 'everybody')), 'note-empty', false],
		['an image without a picture', under(one('image', {}, 'everybody')), 'image-empty', false],
		['a computed field without a rule', under(one('computed', {}, 'everybody')), 'rule-empty', false],
		['a rule about a key that is not there', under(one('text', { showWhen: 'gone = 1' })), 'rule-key', true],
		[
			'a circle of rules',
			under(one('computed', { key: 'a', settings: { rule: 'a + 1' } }, 'everybody')),
			'rule-circle',
			false
		],
		['a rule that nothing fulfils', under(list, one('text', { showWhen: 'town = "b"' })), 'never-shown', true],
		['a rule that never holds', under(one('text', { showWhen: '1 > 2' })), 'never-shown', true],
		[
			'a rule that asks too early',
			under(one('text', { key: 'late' }, 'tamsin'), one('text', { showWhen: 'late = "x"' })),
			'rule-too-early',
			true
		],
		[
			'a rule that asks too early by way of a computed field',
			under(
				one('number', { key: 'late' }, 'tamsin'),
				one('computed', { key: 'c', settings: { rule: 'late * 2' } }, 'everybody'),
				one('text', { showWhen: 'c > 2' })
			),
			'rule-too-early',
			true
		],
		['twins of two kinds', under(one('text', { key: 'k' }), one('number', { key: 'k' })), 'twins-differ', true],
		[
			'twins with other checks',
			under(one('text', { key: 'k' }), one('text', { key: 'k', settings: { most: 3 } })),
			'twins-differ',
			true
		],
		[
			'signatures of two people as twins',
			under(one('signature', { key: 'k' }), one('signature', { key: 'k' }, 'tamsin')),
			'twins-of-several',
			true
		],
		['a group of two people', under(box('a'), box('b', { person: 'tamsin' })), 'twins-of-several', true],
		['more ticks wanted than boxes', under(box('a', { settings: { value: 'a', least: 2 } })), 'group-short', true],
		['a pick of one', under(one('pick-one', { key: 'p', settings: { value: 'a' } })), 'group-short', false],
		['a faulty pattern', under(one('text', { settings: { pattern: 'own', own: '(' } })), 'settings-wrong', false],
		['least over most', under(one('number', { settings: { least: '5', most: '1' } })), 'settings-wrong', false],
		['a bound that is no date', under(one('date', { settings: { least: '1 + 1' } })), 'rule-type', false],
		['a sender’s answer that is missing', under(one('text', {}, 'sender')), 'sender-answer-missing', false],
		['a box too small for its characters', under(one('text', { settings: { boxes: 30 } })), 'box-too-small', true],
		[
			'a note that runs over',
			under(one('note', { shrink: false, settings: { text: 'long words '.repeat(30) } }, 'everybody')),
			'box-too-small',
			true
		],
		[
			'fields over each other',
			under(
				{ ...one('text'), id: 'x', rect: { x: 300, y: 700, width: 99, height: 20 } },
				{ ...one('text'), id: 'y', rect: { x: 310, y: 705, width: 99, height: 20 } }
			),
			'fields-overlap',
			true
		],
		[
			'a field over the edge',
			under({ ...one('text'), rect: { x: 570, y: 700, width: 99, height: 20 } }),
			'field-off-page',
			true
		]
	])('finds %s', (_, p, code, curable) => {
		const found = preflight(p);
		expect(found.map((f) => f.code)).toEqual([code]);
		expect(found[0]!.place).toMatchObject({ what: 'field' });
		expect(found[0]!.cure !== undefined).toBe(curable);
		// a cure leaves nothing of what it cures
		if (found[0]!.cure) expect(preflight(found[0]!.cure.plan(p)).map((f) => f.code)).not.toContain(code);
	});
	it('takes a sender’s answer that will do, and says which won’t', () => {
		const fee = one('number', { settings: { least: '10' } }, 'sender');
		const with_ = (number: string) =>
			preflight({ ...under(fee), answers: { [fee.id]: { number } } }).map((f) => f.code);
		expect([with_('12'), with_('9')]).toEqual([[], ['sender-answer-wrong']]);
	});
	it('lets alternatives lie over each other, and a stamp under a signature', () => {
		const at = { x: 300, y: 700, width: 99, height: 20 };
		const flag = box('yes');
		expect(
			codes(
				under(
					flag,
					{ ...one('text', { showWhen: 'extras' }), rect: at },
					{ ...one('text', { showWhen: 'not(extras)' }), rect: at },
					{ ...one('strike', {}, 'everybody'), rect: at }
				)
			)
		).toEqual([]);
	});
});

describe('addresses', () => {
	it.each(['a@b.example', 'maren.lindqvist+tour@post.example', 'ελένη@παράδειγμα.example', "o'neil@x-y.example"])(
		'takes %s',
		(a) => expect(isAddress(a)).toBe(true)
	);
	it.each([
		'',
		'a',
		'a@b',
		'@b.example',
		'a b@c.example',
		'a@b..example',
		'.a@b.example',
		'a.@b.example',
		'a@@b.example',
		'a@b.example, c@d.example',
		'a@b.example\nBcc: c@d.example',
		`${'x'.repeat(65)}@b.example`,
		`<a@b.example>`
	])('refuses %j', (a) => expect(isAddress(a)).toBe(false));
});
