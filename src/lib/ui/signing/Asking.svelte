<script lang="ts">
	import type { Paper } from '../../core/packet';
	import AskDialog from './AskDialog.svelte';
	import { send } from './keeper';
	import WhoInputs from './WhoInputs.svelte';
	import { useWords } from './words';

	/** The ways out besides finishing: decline, hand over, ask for another wording. Each says first what it means. */
	let {
		base,
		what = $bindable(),
		group,
		papers,
		marked,
		ondone
	}: {
		base: string;
		what: 'hand over' | 'wording' | 'decline' | null;
		/** somebody else of their group could do it as well */
		group: boolean;
		papers: Paper[];
		/** words that were marked in the text before this was opened, and where */
		marked: { paper: string; page: number; words: string } | null;
		ondone: (what: 'hand over' | 'wording' | 'decline') => void;
	} = $props();

	const words = useWords();
	let busy = $state(false);
	let wrong = $state('');
	let reason = $state('');
	let heir = $state({ name: '', email: '', why: '' });
	let wish = $state({ words: '', instead: '', why: '' });

	$effect(() => {
		if (what === 'wording' && marked) wish.words = marked.words;
		if (what === null) wrong = '';
	});

	async function ask(kind: 'hand over' | 'wording' | 'decline') {
		busy = true;
		const bodies = {
			decline: { reason },
			'hand over': $state.snapshot(heir),
			wording: { ...$state.snapshot(wish), paper: marked?.paper ?? papers[0]!.id, page: marked?.page ?? 0 }
		};
		const kept = await send(`${base}/${kind.replace(' ', '-')}`, 'POST', bodies[kind], words());
		busy = false;
		wrong = kept.ok ? '' : kept.say;
		if (!kept.ok) return;
		what = null;
		if (kind === 'wording') wish = { words: '', instead: '', why: '' };
		ondone(kind);
	}
	const shut = (open: boolean) => {
		if (!open) what = null;
	};
</script>

<AskDialog
	bind:open={() => what === 'decline', shut}
	title={words()('decline.title')}
	text={words()(group ? 'decline.group' : 'decline.text')}
	button={words()('decline.do')}
	grave
	{busy}
	{wrong}
	ondo={() => ask('decline')}
>
	<label
		>{words()('decline.reason')}<textarea class="input mt-1 h-24" maxlength="2000" bind:value={reason}
		></textarea></label
	>
</AskDialog>
<AskDialog
	bind:open={() => what === 'hand over', shut}
	title={words()('hand over.title')}
	text={words()('hand over.text')}
	button={words()('hand over.do')}
	{busy}
	{wrong}
	ondo={() => ask('hand over')}
>
	<WhoInputs bind:who={heir} nameLabel={words()('hand over.name')} emailLabel={words()('hand over.email')} />
	<label
		>{words()('hand over.why')}<textarea class="input mt-1 h-20" maxlength="2000" bind:value={heir.why}
		></textarea></label
	>
</AskDialog>
<AskDialog
	bind:open={() => what === 'wording', shut}
	title={words()('wording.title')}
	text={words()('wording.text')}
	button={words()('wording.do')}
	{busy}
	{wrong}
	ondo={() => ask('wording')}
>
	<label
		>{words()('wording.words')}
		<span class="block text-[14px] text-quiet">{words()('wording.mark')}</span><textarea
			class="input mt-1 h-20"
			maxlength="2000"
			bind:value={wish.words}></textarea></label
	>
	<label
		>{words()('wording.instead')}<textarea class="input mt-1 h-20" maxlength="2000" bind:value={wish.instead}
		></textarea></label
	>
	<label
		>{words()('wording.why')}<textarea class="input mt-1 h-16" maxlength="2000" bind:value={wish.why}></textarea></label
	>
</AskDialog>
