import { KINDS } from '../../core/field';
import type { Bench } from './bench.svelte';
import { copyFields, removeFields, shiftFields } from './edits';

/** Every key of the Bench and what it does, as the help shows them. */
export const KEYS: [string, string][] = [
	...KINDS.map((kind): [string, string] => [kind.letter, `place ${kind.name}`]),
	['Enter', 'place the kind in hand where you look'],
	['Esc', 'leave a form; put the kind down; choose nothing'],
	['Arrows', 'move 1 point; with Shift 10'],
	['Ctrl D', 'copy what is chosen'],
	['Del', 'remove what is chosen'],
	['Ctrl A', 'choose all fields'],
	['Ctrl Z, Ctrl Y', 'undo, redo'],
	['Ctrl + , Ctrl −', 'larger, smaller'],
	['?', 'show these keys']
];

export interface KeyHelp {
	put(): void;
	zoom(step: number): void;
	help(): void;
}

/** Does what a key says; true where it was one of ours. Keys typed into a field of a form are left alone. */
export function pressKey(event: KeyboardEvent, bench: Bench, help: KeyHelp): boolean {
	const target = event.target as HTMLElement;
	if (target.closest('[role="dialog"]')) return false;
	if (target.closest('input, textarea, select')) {
		// Esc leaves the form, so that the next letter is a key of the Bench again
		if (event.key === 'Escape') target.blur();
		return event.key === 'Escape';
	}
	const { plan, fieldIds } = bench;
	if (event.ctrlKey || event.metaKey) return withControl(event, bench, help);
	const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
	if (arrow && fieldIds.length > 0) {
		const step = event.shiftKey ? 10 : 1;
		bench.change('move', shiftFields(plan, fieldIds, { left: arrow[0]! * step, top: arrow[1]! * step }), true);
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
			bench.change('remove', removeFields(plan, fieldIds));
			bench.chooseFields([]);
			return true;
		case 'Enter':
			// with a kind in hand Enter places it, wherever the focus is; buttons still have Space
			if (!bench.placing) return false;
			help.put();
			return true;
		case '?':
			help.help();
			return true;
	}
	const kind = KINDS.find((k) => k.letter.toLowerCase() === event.key.toLowerCase());
	if (!kind || event.altKey || plan.papers.length === 0) return false;
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
		case 'd': {
			if (bench.fieldIds.length === 0) return true;
			const copied = copyFields(bench.plan, bench.fieldIds);
			bench.change('copy', copied.plan);
			bench.chooseFields(copied.fields);
			return true;
		}
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
