import { isFault, parseRule, type Node } from './parse';
import { asText, type RuleType } from './value';

/** A condition somebody puts together without typing: "[key] [is …] [value]". */
export interface Simple {
	key: string;
	how: How;
	value: string;
}

export const HOWS = ['is', 'is not', 'is more than', 'is less than', 'has', 'is answered', 'is empty'] as const;
export type How = (typeof HOWS)[number];

/** The ways to ask that make sense for a type. */
export function howsFor(type: RuleType): How[] {
	switch (type) {
		case 'number':
		case 'date':
			return ['is', 'is not', 'is more than', 'is less than', 'is answered', 'is empty'];
		case 'text':
			return ['is', 'is not', 'has', 'is answered', 'is empty'];
		case 'list':
			return ['has', 'is answered', 'is empty'];
		case 'truth':
			return ['is'];
	}
}

const OPS = { is: '=', 'is not': '!=', 'is more than': '>', 'is less than': '<' } as const;

/** The rule for a simple condition. */
export function ruleOf({ key, how, value }: Simple, type: RuleType): string {
	if (how === 'is answered') return `not(empty(${key}))`;
	if (how === 'is empty') return `empty(${key})`;
	if (how === 'has') return `contains(${key}, ${quoted(value)})`;
	if (type === 'truth') return value === 'no' ? `not(${key})` : key;
	if (type === 'number') return `${key} ${OPS[how]} ${/^-?\d+(\.\d+)?$/.test(value) ? value : '0'}`;
	return `${key} ${OPS[how]} ${type === 'date' ? `date(${quoted(value)})` : quoted(value)}`;
}

/** The simple condition that a rule is; null where it is more than that. The inverse of {@link ruleOf}. */
export function simpleOf(source: string): Simple | null {
	const node = parseRule(source);
	if (isFault(node)) return null;
	if (node.node === 'key') return { key: node.name, how: 'is', value: 'yes' };
	if (node.node === 'binary' && node.left.node === 'key') {
		const how = (Object.keys(OPS) as (keyof typeof OPS)[]).find((h) => OPS[h] === node.op);
		const value = literal(node.right);
		return how && value !== null ? { key: node.left.name, how, value } : null;
	}
	if (node.node === 'call' && node.name === 'empty') return keyed(node.args[0], 'is empty', '');
	if (node.node === 'call' && node.name === 'contains') {
		const value = node.args[1] && literal(node.args[1]);
		return typeof value === 'string' ? keyed(node.args[0], 'has', value) : null;
	}
	const under =
		node.node === 'unary' && node.op === 'not'
			? node.of
			: node.node === 'call' && node.name === 'not'
				? node.args[0]
				: undefined;
	if (under?.node === 'call' && under.name === 'empty') return keyed(under.args[0], 'is answered', '');
	return keyed(under, 'is', 'no');
}

function keyed(node: Node | undefined, how: How, value: string): Simple | null {
	return node?.node === 'key' ? { key: node.name, how, value } : null;
}

function literal(node: Node): string | null {
	if (node.node === 'literal') return asText(node.value);
	if (node.node === 'unary' && node.op === '-' && node.of.node === 'literal') return `-${asText(node.of.value)}`;
	if (node.node === 'call' && node.name === 'date' && node.args[0]?.node === 'literal')
		return asText(node.args[0].value);
	return null;
}

function quoted(text: string): string {
	return `"${text.replace(/\\/g, '\\\\').replace(/"/g, '\\"')}"`;
}
