import { KINDS } from '../../core/field';
import type { Bench } from './bench.svelte';
import { removeFields, shiftFields } from '../../core/plan';

/** Every key of the Bench and what it does, as the help shows them. */
export const KEYS: [string, string][] = [
	...KINDS.map((kind): [string, string] => [kind.letter, `place ${kind.name}`]),
	['1 … 9', 'place for the first, second … person'],
	['Enter', 'place the kind in hand where you look; take the found place in focus'],
	['.', 'go to the next found place'],
	['Esc', 'leave a form; put the kind down; choose nothing'],
	['Arrows', 'move 1 point; with Shift 10'],
	['Ctrl C, X, V', 'copy, cut, paste on the page in view'],
	['Ctrl D', 'repeat what is chosen on pages'],
	['Ctrl F', 'find a text on the pages'],
	['Ctrl L', 'list of all fields'],
	['Del', 'remove what is chosen'],
	['Ctrl A', 'choose all fields'],
	['Ctrl Z, Ctrl Y', 'undo, redo'],
	['Ctrl + , Ctrl −', 'larger, smaller'],
	['Alt and drag', 'leave a copy'],
	['Alt ← → ↑', 'move whoever is in focus along the route; ↑ beside the one before'],
	['Ctrl and drag', 'let it stand where it is let go, drawn to nothing'],
	['?', 'show these keys']
];

/** What the page does for a key. */
export interface KeyHelp {
	put(): void;
	zoom(step: number): void;
	help(): void;
	copy(cut: boolean): void;
	paste(): void;
	repeat(): void;
	find(): void;
	list(): void;
	nextFound(): void;
}

/** Does what a key says; true where it was one of ours. Keys typed into a field of a form are left alone. */
export function pressKey(event: KeyboardEvent, bench: Bench, help: KeyHelp): boolean {
	const target = event.target as HTMLElement;
	// what is open over the page has the keys
	if (target.closest('[role="dialog"], [role="listbox"], [role="menu"]')) return false;
	// a list of choices takes letters too: they choose in it
	if (target.closest('input:not([type="checkbox"]), textarea, select, [role="combobox"]')) {
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'f') return withControl(event, bench, help);
		// Esc leaves the form, so that the next letter is a key of the Bench again
		if (event.key === 'Escape') target.blur();
		return event.key === 'Escape';
	}
	const { plan, fieldIds } = bench;
	if (event.ctrlKey || event.metaKey) return withControl(event, bench, help);
	const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
	if (arrow && fieldIds.length > 0) {
		const step = event.shiftKey ? 10 : 1;
		bench.change(
			fieldIds.length === 1 ? 'move a field' : `move ${fieldIds.length} fields`,
			shiftFields(plan, fieldIds, { left: arrow[0]! * step, top: arrow[1]! * step }),
			true
		);
		return true;
	}
	switch (event.key) {
		case 'Escape':
			if (bench.placing) bench.placing = null;
			else bench.chooseFields([]);
			return true;
		case 'Delete':
		case 'Backspace':
			if (fieldIds.length === 0) return false;
			bench.change(fieldIds.length === 1 ? 'remove' : `remove ${fieldIds.length} fields`, removeFields(plan, fieldIds));
			bench.chooseFields([]);
			return true;
		case 'Enter':
			// with a kind in hand Enter places it, wherever the focus is but on a found place; buttons still have Space
			if (!bench.placing || target.dataset['found'] !== undefined) return false;
			help.put();
			return true;
		case '.':
			help.nextFound();
			return true;
		case '?':
			help.help();
			return true;
	}
	if (event.altKey) return false;
	if (/^[1-9]$/.test(event.key)) {
		const person = bench.actors[Number(event.key) - 1];
		if (!person) return false;
		bench.person = person.id;
		return true;
	}
	const kind = KINDS.find((k) => k.letter.toLowerCase() === event.key.toLowerCase());
	if (!kind || plan.papers.length === 0) return false;
	bench.placing = kind.kind;
	return true;
}

function withControl(event: KeyboardEvent, bench: Bench, help: KeyHelp): boolean {
	switch (event.key.toLowerCase()) {
		case 'z':
			if (event.shiftKey) bench.redo();
			else bench.undo();
			return true;
		case 'y':
			bench.redo();
			return true;
		case 'a':
			bench.chooseFields(bench.plan.fields.map((f) => f.id));
			return true;
		case 'c':
		case 'x':
			// marked text is copied as ever
			if (bench.fieldIds.length === 0 || String(getSelection() ?? '') !== '') return false;
			help.copy(event.key.toLowerCase() === 'x');
			return true;
		case 'v':
			help.paste();
			return true;
		case 'd':
			if (bench.fieldIds.length > 0) help.repeat();
			return true;
		case 'f':
			help.find();
			return true;
		case 'l':
			help.list();
			return true;
		case '+':
		case '=':
			help.zoom(1);
			return true;
		case '-':
			help.zoom(-1);
			return true;
	}
	return false;
}
