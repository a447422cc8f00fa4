import { describe, expect, it } from 'vitest';
import { engagement, field, plan } from '../../../../e2e/kit/plans';
import { isAddress, preflight, type Plan } from './index';

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
