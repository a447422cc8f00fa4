import { FUNCTIONS } from './functions';
import type { BinaryOp, Node } from './parse';
import { Dec, isDay, isNumber, type RuleValue } from './value';

/** What a rule may see while it is evaluated: answers by key, and the day it is (ISO 8601). Nothing else. */
export interface RuleWorld {
	value(key: string): RuleValue;
	today: string;
}

/**
 * What a rule gives. Never throws: what can't be reckoned (a division by zero, an empty operand, a number beyond
 * all bounds) is no value. The language has no loops, so the time is bounded by the rule's size.
 */
export function evaluate(node: Node, world: RuleWorld): RuleValue {
	switch (node.node) {
		case 'literal':
			return node.value;
		case 'key':
			return world.value(node.name);
		case 'unary': {
			const of = evaluate(node.of, world);
			if (node.op === 'not') return typeof of === 'boolean' ? !of : null;
			return isNumber(of) ? of.neg() : null;
		}
		case 'binary':
			return binary(node.op, evaluate(node.left, world), evaluate(node.right, world));
		case 'call': {
			const known = FUNCTIONS[node.name];
			if (!known) return null;
			const args = node.args.map((arg) => evaluate(arg, world));
			if (!known.lenient && args.includes(null)) return null;
			return finite(known.run(args, world.today));
		}
	}
}

/** Whether a condition holds: only a plain yes does, so that a question without an answer shows nothing. */
export function holds(node: Node, world: RuleWorld): boolean {
	return evaluate(node, world) === true;
}

function binary(op: BinaryOp, left: RuleValue, right: RuleValue): RuleValue {
	// three-valued: a no decides an "and", a yes an "or", whatever is missing beside it
	if (op === 'and') return left === false || right === false ? false : left === null || right === null ? null : true;
	if (op === 'or') return left === true || right === true ? true : left === null || right === null ? null : false;
	if (left === null || right === null) return null;
	if (isNumber(left) && isNumber(right)) return reckon(op, left, right);
	const [a, b] = [plain(left), plain(right)];
	switch (op) {
		case '=':
			return a === b;
		case '!=':
			return a !== b;
		case '<':
			return a < b;
		case '<=':
			return a <= b;
		case '>':
			return a > b;
		case '>=':
			return a >= b;
		default:
			return null;
	}
}

function plain(value: Exclude<RuleValue, null>): string | boolean {
	return isDay(value) ? value.day : typeof value === 'boolean' ? value : String(value);
}

function reckon(op: BinaryOp, a: Dec, b: Dec): RuleValue {
	switch (op) {
		case '+':
			return finite(a.plus(b));
		case '-':
			return finite(a.minus(b));
		case '*':
			return finite(a.times(b));
		case '/':
			return b.isZero() ? null : finite(a.div(b));
		case '=':
			return a.eq(b);
		case '!=':
			return !a.eq(b);
		case '<':
			return a.lt(b);
		case '<=':
			return a.lte(b);
		case '>':
			return a.gt(b);
		case '>=':
			return a.gte(b);
		default:
			return null;
	}
}

function finite(value: RuleValue): RuleValue {
	return isNumber(value) && !value.isFinite() ? null : value;
}
