import jsep from 'jsep';
import { Dec } from './value';

/** Bounds that keep a rule readable, and every evaluation short. */
export const LENGTH = 2000;
const DEPTH = 40;
const NODES = 400;

/** What is wrong with a rule, and where: `from` and `to` count characters of its text. */
export interface RuleFault {
	fault: true;
	code: string;
	say: string;
	from: number;
	to: number;
}

interface Place {
	from: number;
	to: number;
}

/** A rule taken apart. `today` stands as a call without arguments. */
export type Node = Place &
	(
		| { node: 'literal'; value: Dec | string | boolean }
		| { node: 'key'; name: string }
		| { node: 'call'; name: string; args: Node[] }
		| { node: 'unary'; op: '-' | 'not'; of: Node }
		| { node: 'binary'; op: BinaryOp; left: Node; right: Node }
	);

const BINARY = {
	or: 1,
	and: 2,
	'=': 3,
	'!=': 3,
	'<': 4,
	'<=': 4,
	'>': 4,
	'>=': 4,
	'+': 6,
	'-': 6,
	'*': 7,
	'/': 7
} as const;
export type BinaryOp = keyof typeof BINARY;

export function isFault(value: unknown): value is RuleFault {
	return typeof value === 'object' && value !== null && (value as RuleFault).fault === true;
}

export function fault(code: string, say: string, at: Place): RuleFault {
	return { fault: true, code, say, from: at.from, to: at.to };
}

type Raw = jsep.Expression & Partial<Place> & Record<string, unknown>;

jsep.removeAllBinaryOps();
jsep.removeAllUnaryOps();
jsep.removeAllLiterals();
jsep.addUnaryOp('-');
jsep.addUnaryOp('not');
for (const [op, weight] of Object.entries(BINARY)) jsep.addBinaryOp(op, weight);
jsep.addLiteral('true', true);
jsep.addLiteral('false', false);

// The parser tells no places, so each token is marked with where it began and ended. Its types leave these hooks out.
interface Parser {
	index: number;
	expr: string;
	gobbleNumericLiteral(): jsep.Expression;
}
const hooks = jsep.hooks as unknown as {
	add(name: string, run: (env: { context: Parser; node?: jsep.Expression }) => void): void;
};
const starts: number[] = [];
hooks.add('before-all', () => (starts.length = 0));
hooks.add('gobble-token', (env) => {
	const { context } = env;
	starts.push(context.index);
	// numbers would pass by the hook that closes a token
	if (/[\d.]/.test(context.expr[context.index] ?? '')) env.node = context.gobbleNumericLiteral();
});
hooks.add('after-token', ({ context: { index, expr }, node }) => {
	const from = starts.pop() ?? 0;
	if (node) Object.assign(node, { from, to: from + expr.slice(from, index).trimEnd().length });
});

/** Takes a rule apart. Faults: rule-empty, rule-long, rule-deep, rule-syntax. */
export function parseRule(source: string): Node | RuleFault {
	const whole = { from: 0, to: Math.min(source.length, LENGTH) };
	if (source.trim() === '') return fault('rule-empty', 'The rule is empty.', whole);
	if (source.length > LENGTH)
		return fault(
			'rule-long',
			`The rule has ${source.length.toLocaleString('en-GB')} characters; ${LENGTH.toLocaleString('en-GB')} are the most. Split it up with computed fields.`,
			whole
		);
	let raw: Raw;
	try {
		raw = jsep(source) as Raw;
	} catch (error) {
		const at = Math.min((error as { index?: number }).index ?? source.length, source.length);
		return fault('rule-syntax', syntaxSentence(source, at), {
			from: Math.max(0, Math.min(at, source.length - 1)),
			to: at + 1
		});
	}
	const count = { nodes: 0 };
	return narrow(raw, source, 0, count);
}

function syntaxSentence(source: string, at: number): string {
	const open = (source.match(/\(/g) ?? []).length - (source.match(/\)/g) ?? []).length;
	if (open > 0) return 'A bracket is not closed.';
	if (open < 0) return 'There is a closing bracket too many.';
	if ((source.match(/"/g) ?? []).length % 2 === 1) return 'A text is not closed: a " is missing.';
	const rest = source.slice(at).trim();
	return rest === '' ? 'Something is missing at the end.' : `“${rest.slice(0, 12)}” can't stand here.`;
}

/** From whatever the parser gives to the few forms a rule has. All else is refused with its place. */
function narrow(raw: Raw, source: string, depth: number, count: { nodes: number }): Node | RuleFault {
	const at = placeOf(raw, source);
	count.nodes += 1;
	if (depth > DEPTH || count.nodes > NODES)
		return fault(
			'rule-deep',
			'The rule is nested too deeply, or has too many parts. Split it up with computed fields.',
			at
		);
	const below = (node: unknown) => narrow(node as Raw, source, depth + 1, count);
	switch (raw.type) {
		case 'Literal': {
			const value = raw['value'];
			if (typeof value === 'number') {
				const text = String(raw['raw']);
				return /^(\d{1,30}(\.\d{1,30})?|\.\d{1,30})$/.test(text)
					? { node: 'literal', value: new Dec(text), ...at }
					: fault('rule-syntax', `“${text.slice(0, 12)}” is not a number a rule can use.`, at);
			}
			return { node: 'literal', value: value as string | boolean, ...at };
		}
		case 'Identifier': {
			const name = String(raw['name']);
			return name === 'today' ? { node: 'call', name, args: [], ...at } : { node: 'key', name, ...at };
		}
		case 'CallExpression': {
			const callee = raw['callee'] as Raw;
			if (callee.type !== 'Identifier') return fault('rule-syntax', 'Only a named function can be called.', at);
			const args: Node[] = [];
			for (const one of raw['arguments'] as (Raw | null)[]) {
				if (!one) return fault('rule-syntax', 'Something is missing between the commas.', at);
				const arg = below(one);
				if (isFault(arg)) return arg;
				args.push(arg);
			}
			return { node: 'call', name: String(callee['name']), args, ...at };
		}
		case 'UnaryExpression': {
			const of = below(raw['argument']);
			return isFault(of) ? of : { node: 'unary', op: raw['operator'] as '-' | 'not', of, ...at };
		}
		case 'BinaryExpression': {
			const left = below(raw['left']);
			if (isFault(left)) return left;
			const right = below(raw['right']);
			if (isFault(right)) return right;
			return { node: 'binary', op: raw['operator'] as BinaryOp, left, right, ...at };
		}
		case 'Compound':
			return fault('rule-syntax', 'Two things stand side by side; an operator such as + or and is missing.', at);
		default:
			return fault(
				'rule-syntax',
				'A rule has no such form. Use keys, numbers, texts in "…", operators and functions.',
				at
			);
	}
}

function placeOf(raw: Raw, source: string): Place {
	if (raw.type === 'BinaryExpression') {
		const left = placeOf(raw['left'] as Raw, source);
		const right = placeOf(raw['right'] as Raw, source);
		return { from: left.from, to: right.to };
	}
	return { from: raw.from ?? 0, to: raw.to ?? source.length };
}

/** The keys a rule uses, each once. */
export function keysOf(node: Node): string[] {
	const keys = new Set<string>();
	const walk = (n: Node): void => {
		if (n.node === 'key') keys.add(n.name);
		else if (n.node === 'call') n.args.forEach(walk);
		else if (n.node === 'unary') walk(n.of);
		else if (n.node === 'binary') {
			walk(n.left);
			walk(n.right);
		}
	};
	walk(node);
	return [...keys];
}
