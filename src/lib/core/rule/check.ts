import { FUNCTIONS, type Takes } from './functions';
import { fault, isFault, keysOf, parseRule, type BinaryOp, type Node, type RuleFault } from './parse';
import type { RuleType } from './value';

/** The keys a rule may use, each with the type of its answer. */
export type RuleKeys = Record<string, RuleType>;

/** A rule that holds together: what it gives and which keys it uses. */
export interface CheckedRule {
	node: Node;
	gives: RuleType;
	uses: string[];
}

const NAMES: Record<RuleType, string> = {
	number: 'a number',
	text: 'a text',
	date: 'a date',
	truth: 'yes or no',
	list: 'a list'
};

export const typeName = (type: RuleType): string => NAMES[type];

/**
 * Checks a rule against the keys there are. `wants`: what it must give; a text takes anything.
 * Faults, each with its place: those of {@link parseRule}, rule-key, rule-function, rule-arguments, rule-type.
 */
export function checkRule(source: string, keys: RuleKeys, wants?: RuleType): CheckedRule | RuleFault {
	const node = parseRule(source);
	if (isFault(node)) return node;
	const gives = typeOf(node, keys);
	if (isFault(gives)) return gives;
	if (wants !== undefined && wants !== gives)
		return fault('rule-type', `This gives ${NAMES[gives]}, but ${NAMES[wants]} is wanted here.`, node);
	return { node, gives, uses: keysOf(node) };
}

function typeOf(node: Node, keys: RuleKeys): RuleType | RuleFault {
	switch (node.node) {
		case 'literal':
			return typeof node.value === 'string' ? 'text' : typeof node.value === 'boolean' ? 'truth' : 'number';
		case 'key':
			return Object.hasOwn(keys, node.name)
				? keys[node.name]!
				: fault('rule-key', unknownSentence('There is no field with the key', node.name, Object.keys(keys)), node);
		case 'unary':
			return wanted(node.of, keys, node.op === '-' ? 'number' : 'truth');
		case 'binary':
			return binaryType(node.op, node.left, node.right, keys, node);
		case 'call':
			return callType(node, keys);
	}
}

function wanted(node: Node, keys: RuleKeys, takes: Takes): RuleType | RuleFault {
	const type = typeOf(node, keys);
	if (isFault(type) || takes === 'any' || type === takes) return type;
	return fault('rule-type', `This is ${NAMES[type]}, but ${NAMES[takes]} is wanted here.`, node);
}

function binaryType(op: BinaryOp, left: Node, right: Node, keys: RuleKeys, whole: Node): RuleType | RuleFault {
	if (op === 'and' || op === 'or') {
		const first = wanted(left, keys, 'truth');
		return isFault(first) ? first : wanted(right, keys, 'truth');
	}
	if (op === '+' || op === '-' || op === '*' || op === '/') {
		const first = wanted(left, keys, 'number');
		return isFault(first) ? helped(first, op) : helped(wanted(right, keys, 'number'), op);
	}
	const first = typeOf(left, keys);
	if (isFault(first)) return first;
	const second = typeOf(right, keys);
	if (isFault(second)) return second;
	if (first === 'list' || second === 'list')
		return fault('rule-type', 'A list can’t be compared. Ask with contains(…, "…") or count(…).', whole);
	if (first !== second)
		return fault('rule-type', `${capital(NAMES[first])} can’t be compared with ${NAMES[second]}.`, whole);
	if (op !== '=' && op !== '!=' && first !== 'number' && first !== 'date')
		return fault('rule-type', 'Only numbers and dates can be less or more than another.', whole);
	return 'truth';
}

function helped(type: RuleType | RuleFault, op: BinaryOp): RuleType | RuleFault {
	if (!isFault(type) || type.code !== 'rule-type') return type;
	if (/a date/.test(type.say)) return { ...type, say: `${type.say} Use days(from, to) or add_days(day, n).` };
	if (op === '+') return { ...type, say: `${type.say} Use join(…) to put texts together.` };
	return type;
}

function callType(node: Extract<Node, { node: 'call' }>, keys: RuleKeys): RuleType | RuleFault {
	const known = Object.hasOwn(FUNCTIONS, node.name) ? FUNCTIONS[node.name]! : undefined;
	if (!known)
		return fault('rule-function', unknownSentence('There is no function', node.name, Object.keys(FUNCTIONS)), node);
	const most = known.more ? Infinity : known.takes.length;
	const least = known.takes.length - (known.optional ?? 0);
	if (node.args.length < least || node.args.length > most)
		return fault(
			'rule-arguments',
			`${node.name}(…) takes ${inWords(least, most)}; here ${node.args.length === 1 ? 'stands' : 'stand'} ${node.args.length}.`,
			node
		);
	const types: RuleType[] = [];
	for (const [i, arg] of node.args.entries()) {
		const type = wanted(arg, keys, known.takes[Math.min(i, known.takes.length - 1)]!);
		if (isFault(type)) return type;
		types.push(type);
	}
	if (node.name === 'if' && types.length === 3 && types[1] !== types[2])
		return fault(
			'rule-type',
			`Both outcomes must be alike: one is ${NAMES[types[1]!]}, the other ${NAMES[types[2]!]}.`,
			node
		);
	return typeof known.gives === 'function' ? known.gives(types) : known.gives;
}

function inWords(least: number, most: number): string {
	const things = (n: number) => (n === 0 ? 'nothing' : n === 1 ? 'one thing' : `${n} things`);
	if (most === Infinity) return `at least ${things(least)}`;
	return least === most ? things(least) : `${least} to ${most} things`;
}

/** Says what is unknown and, where something known is spelled nearly so, what may have been meant. */
function unknownSentence(say: string, name: string, known: string[]): string {
	const near = nearest(name, known);
	return near ? `${say} “${name}”. Is “${near}” meant?` : `${say} “${name}”.`;
}

/** The known word that is spelled most like it, at most a third of its letters changed; null where none is. */
export function nearest(word: string, known: string[]): string | null {
	const ranked = known
		.map((one) => ({ one, far: distance(word.toLowerCase(), one.toLowerCase()) }))
		.sort((a, b) => a.far - b.far);
	const best = ranked[0];
	return best && best.far <= Math.max(1, Math.floor(word.length / 3)) ? best.one : null;
}

/** Letters to change, add or drop (Levenshtein). */
function distance(a: string, b: string): number {
	let row = Array.from({ length: b.length + 1 }, (_, i) => i);
	for (let i = 1; i <= a.length; i++) {
		const next = [i];
		for (let j = 1; j <= b.length; j++)
			next[j] = Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1));
		row = next;
	}
	return row[b.length]!;
}

function capital(text: string): string {
	return text[0]!.toUpperCase() + text.slice(1);
}
