<script module lang="ts">
	import { folded } from '../../core/folded';

	export interface Offer {
		words: string;
		note?: string;
	}

	/** Offers those of a list that have what is written in them. */
	export const among =
		(all: readonly string[]) =>
		(typed: string): Offer[] =>
			all.filter((one) => folded(one).includes(folded(typed))).map((words) => ({ words }));
</script>

<script lang="ts">
	import { Combobox } from 'bits-ui';
	import Offers from './Offers.svelte';

	/** A line that takes any words, with some offered below it while it is written. */
	let {
		label,
		value,
		id,
		name,
		most,
		readonly = false,
		placeholder = '',
		offered,
		oninput,
		ontake
	}: {
		label: string;
		value: string;
		id?: string;
		/** within a form it goes along under it */
		name?: string;
		/** how many letters it takes */
		most: number;
		readonly?: boolean;
		placeholder?: string;
		/** what is offered for these words: what would stand there, and a note that tells it from others alike */
		offered: (words: string) => Promise<Offer[]> | Offer[];
		oninput?: (words: string) => void;
		/** one of them was taken; its words are in the line already */
		ontake?: (offer: Offer) => void;
	} = $props();

	const uid = $props.id();
	let typed = $derived(value);
	let open = $state(false);
	let offers = $state.raw<Offer[]>([]);
	let field = $state<HTMLInputElement | null>(null);
	let turn = 0;

	async function look(words: string) {
		const mine = ++turn;
		const found = readonly ? [] : await offered(words);
		// what was asked for earlier may come later
		if (mine !== turn) return;
		// what stands there already is no offer: its list would only lie over what is pressed next
		offers = found.filter((one) => one.note || one.words !== words);
		open = offers.length > 0;
	}
	function take(at: string) {
		const offer = offers[Number(at)];
		if (at === '' || !offer) return;
		turn += 1;
		typed = offer.words;
		open = false;
		if (field) field.value = offer.words;
		oninput?.(offer.words);
		ontake?.(offer);
	}
</script>

<div class="min-w-0">
	<label for={id ?? `${uid}-field`} class="block pb-1">{label}</label>
	<Combobox.Root type="single" value="" onValueChange={take} inputValue={typed} bind:open>
		<Combobox.Input
			bind:ref={field}
			id={id ?? `${uid}-field`}
			{name}
			class="input"
			maxlength={most}
			autocomplete="off"
			spellcheck="false"
			{readonly}
			{placeholder}
			oninput={(event) => {
				typed = event.currentTarget.value;
				oninput?.(typed);
				void look(typed);
			}}
		/>
		<Offers {field} label="Offered" low>
			{#each offers as offer, i (i)}
				<Combobox.Item
					value={String(i)}
					label={offer.words}
					class="cursor-pointer rounded-sm px-2 py-1 wrap-anywhere outline-none data-highlighted:bg-wash"
					>{offer.words}{#if offer.note}<br /><span class="text-[13px] text-quiet">{offer.note}</span
						>{/if}</Combobox.Item
				>
			{/each}
		</Offers>
	</Combobox.Root>
</div>
