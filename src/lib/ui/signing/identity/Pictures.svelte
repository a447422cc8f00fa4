<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import type { DocumentKind, PictureFault, Side } from '../../../core/identity';
	import Files from '../../parts/Files.svelte';
	import OneOf from '../../parts/OneOf.svelte';
	import { send, upload } from '../keeper';
	import { useWords } from '../words';
	import Camera from './Camera.svelte';
	import { Seeing } from './seeing';

	/** Pictures of a document: each looked at as soon as it is there, then handed in together. */
	let {
		base,
		kinds,
		sides,
		taken,
		onchange
	}: {
		base: string;
		kinds: DocumentKind[];
		sides: Partial<Record<DocumentKind, Side[]>>;
		taken: { side: Side; faults: PictureFault[] }[];
		onchange: () => void;
	} = $props();

	const words = useWords();
	let kind = $state<DocumentKind>(untrack(() => kinds[0]!));
	const wanted = $derived(sides[kind] ?? []);
	/** what is there already, as the server has it, and what was taken since */
	let there = $state<Partial<Record<Side, PictureFault[]>>>(
		untrack(() => Object.fromEntries(taken.map((one) => [one.side, one.faults])))
	);
	let shown = $state<Partial<Record<Side, string>>>({});
	let camera = $state<Side | null>(null);
	let busy = $state<Side | null>(null);
	let wrong = $state('');
	let noCamera = $state(false);
	const whole = $derived(wanted.every((side) => there[side] !== undefined));
	const bad = $derived(wanted.some((side) => (there[side] ?? []).length > 0));

	let seeing: Seeing | undefined;
	onMount(() => {
		seeing = new Seeing();
		noCamera = navigator.mediaDevices === undefined;
		return () => {
			seeing?.end();
			Object.values(shown).forEach((url) => URL.revokeObjectURL(url));
		};
	});

	async function take(side: Side, file: Blob) {
		camera = null;
		busy = side;
		wrong = '';
		const seen = await seeing?.see(file, side);
		// what this browser can't read, the server may
		const kept = await upload<{ faults: PictureFault[] }>(
			`${base}/identity?side=${side}`,
			seen?.picture ?? file,
			words()
		);
		busy = null;
		if (typeof kept === 'string') return void (wrong = kept);
		there[side] = seen && seen.faults.length > 0 ? seen.faults : kept.faults;
		if (shown[side]) URL.revokeObjectURL(shown[side]);
		shown[side] = URL.createObjectURL(seen?.picture ?? file);
	}

	async function handIn() {
		const kept = await send(`${base}/identity`, 'PUT', { kind }, words());
		wrong = kept.ok ? '' : kept.say;
		if (kept.ok) onchange();
	}

	const nameOf = (side: Side) =>
		words()(side === 'front' && kind === 'passport' ? 'show.side.page' : (`show.side.${side}` as const));
</script>

<div class="grid gap-5">
	{#if kinds.length > 1}
		<OneOf
			label={words()('show.kind')}
			bind:value={kind}
			options={kinds.map((one) => [one, words()(`show.kind.${one}` as const)] as const)}
		/>
	{/if}
	{#each wanted as side (side)}
		{@const faults = there[side]}
		<section class="grid gap-2 border-t border-hairline pt-4" aria-label={nameOf(side)}>
			<h3 class="text-[17px]">{nameOf(side)}</h3>
			{#if camera === side}
				<Camera
					{side}
					ontake={(picture) => void take(side, picture)}
					onleave={(cant) => {
						camera = null;
						noCamera ||= cant;
					}}
				/>
			{:else}
				{#if shown[side]}<img
						class="max-h-60 w-auto justify-self-start border border-hairline"
						src={shown[side]}
						alt={nameOf(side)}
					/>{/if}
				<div role="status">
					{#if busy === side}<p class="text-quiet">{words()('keep.moment')}</p>
					{:else if faults?.length === 0}<p class="text-moss">{words()('show.good')}</p>
					{:else if faults}
						<ul class="text-copper">
							{#each faults as fault (fault)}<li>{words()(`show.fault.${fault}` as const)}</li>{/each}
						</ul>
					{/if}
				</div>
				<div class="flex flex-wrap items-start gap-2">
					{#if !noCamera}
						<button type="button" class="button large" disabled={busy !== null} onclick={() => (camera = side)}
							>{words()(faults === undefined ? 'show.camera' : 'show.again')}</button
						>
					{/if}
					<Files
						compact
						large
						label={words()('show.file')}
						accept="image/jpeg,image/png,image/webp,image/heic"
						disabled={busy !== null}
						onfiles={([file]) => file && void take(side, file)}
					/>
				</div>
			{/if}
		</section>
	{/each}
	{#if noCamera}<p class="text-[15px] text-quiet">{words()('show.no camera')}</p>{/if}
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
	<p>
		<button type="button" class="button primary large w-full" disabled={!whole || busy !== null} onclick={handIn}
			>{words()(whole && bad ? 'show.all the same' : 'show.hand in')}</button
		>
	</p>
</div>
