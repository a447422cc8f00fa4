import type { Component } from 'svelte';
import type { KindName } from '../../../core/packet';
import type { Asked } from './asked';
import Buttons from './Buttons.svelte';
import DateAnswer from './Date.svelte';
import File from './File.svelte';
import Line from './Line.svelte';
import List from './List.svelte';
import Mark from './Mark.svelte';

/** How each kind of field is answered; null for those that nobody is asked for. A new kind is a row here. */
export const ANSWERS: Record<KindName, Component<Asked> | null> = {
	signature: Mark,
	initials: Mark,
	'signing-date': null,
	name: Line,
	email: Line,
	organisation: Line,
	'job-title': Line,
	text: Line,
	number: Line,
	date: DateAnswer,
	choice: List,
	'pick-one': Buttons,
	ticks: Buttons,
	attachment: File,
	computed: null,
	note: null,
	image: null,
	strike: null
};
