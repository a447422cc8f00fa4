import type { Component } from 'svelte';
import type { KindName } from '../../../../core/packet';
import type { Settings } from '../settings.svelte';
import AttachmentKind from './attachment.svelte';
import ChoiceKind from './choice.svelte';
import ComputedKind from './computed.svelte';
import DateKind from './date.svelte';
import ImageKind from './image.svelte';
import NameKind from './name.svelte';
import NoteKind from './note.svelte';
import NumberKind from './number.svelte';
import PickOneKind from './pick-one.svelte';
import SigningDateKind from './signing-date.svelte';
import TextKind from './text.svelte';
import TicksKind from './ticks.svelte';

/** What each kind of field can be told, one file a kind; null for those that can be told nothing. A new kind is a row here. */
export const INSPECTED: Record<KindName, Component<{ settings: Settings }> | null> = {
	signature: null,
	initials: null,
	'signing-date': SigningDateKind,
	name: NameKind,
	email: null,
	organisation: null,
	'job-title': null,
	text: TextKind,
	number: NumberKind,
	date: DateKind,
	choice: ChoiceKind,
	'pick-one': PickOneKind,
	ticks: TicksKind,
	attachment: AttachmentKind,
	computed: ComputedKind,
	note: NoteKind,
	image: ImageKind,
	strike: null
};
