<script lang="ts">
	import type { BroughtPicture } from '../../core/paper';
	import type { Words } from '../../words/words';
	import Files from '../parts/Files.svelte';
	import { send, upload } from '../signing/keeper';

	/** What came back on paper: added one after another, looked at as it comes, taken out again, handed in, also in parts. */
	let {
		base,
		words,
		pages,
		pictures,
		missing,
		onchange
	}: {
		/** under which pictures are added (POST), taken out (DELETE) and handed in (PUT) */
		base: string;
		words: Words;
		/** how many went out */
		pages: number;
		pictures: BroughtPicture[];
		missing: number[];
		onchange: () => void;
	} = $props();

	let busy = $state('');
	let wrong = $state('');
	const loose = $derived(pictures.filter((one) => !one.handedIn));

	async function add(files: File[]) {
		wrong = '';
		for (const [i, file] of files.entries()) {
			busy = `${i + 1} / ${files.length}`;
			const kept = await upload(`${base}/pictures?name=${encodeURIComponent(file.name)}`, file, words);
			// the others are taken all the same
			if (typeof kept === 'string') wrong = files.length > 1 ? `${file.name}: ${kept}` : kept;
		}
		busy = '';
		onchange();
	}

	async function out(id: string) {
		const kept = await send(`${base}/pictures/${id}`, 'DELETE', {}, words);
		wrong = kept.ok ? '' : kept.say;
		onchange();
	}

	async function handIn() {
		busy = '…';
		const kept = await send(`${base}/pictures`, 'PUT', {}, words);
		busy = '';
		wrong = kept.ok ? '' : kept.say;
		if (kept.ok) onchange();
	}
</script>

<section class="grid gap-3" aria-labelledby="bring-back">
	<h3 class="text-[17px]" id="bring-back">{words('paper.back')}</h3>
	<div class="flex flex-wrap items-start gap-2">
		<Files
			compact
			large
			label={words('paper.photo')}
			accept="image/*"
			capture="environment"
			disabled={busy !== ''}
			onfiles={(files) => void add(files)}
		/>
		<Files
			compact
			large
			multiple
			label={words('paper.files')}
			accept="image/jpeg,image/png,image/webp,image/heic,application/pdf"
			disabled={busy !== ''}
			onfiles={(files) => void add(files)}
		/>
	</div>
	<p role="status" class="text-quiet empty:hidden">{busy ? `${words('keep.moment')} ${busy}` : ''}</p>
	{#if loose.length > 0}
		<ul class="grid gap-1">
			{#each loose as one (one.id)}
				<li class="flex flex-wrap items-baseline gap-x-3 border-t border-hairline py-2">
					<span class="min-w-0 flex-1 break-words">
						{one.page !== null ? words('paper.page', { page: one.page, pages }) : one.name}
						{#if one.page === null && !one.pdf}<span class="block text-[15px] text-copper">{words('paper.unread')}</span
							>{/if}
						{#each one.faults as fault (fault)}<span class="block text-[15px] text-copper"
								>{words(`show.fault.${fault}` as const)}</span
							>{/each}
					</span>
					<button type="button" class="button" onclick={() => void out(one.id)} disabled={busy !== ''}
						>{words('paper.take out')}<span class="unseen">: {one.name}</span></button
					>
				</li>
			{/each}
		</ul>
	{/if}
	{#if missing.length > 0}<p class="text-[15px] text-copper">
			{words('paper.missing', { pages: missing.join(', ') })}
		</p>{/if}
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
	<p>
		<button
			type="button"
			class="button primary large w-full sm:w-auto"
			disabled={loose.length === 0 || busy !== ''}
			onclick={() => void handIn()}>{words('paper.hand in')}</button
		>
	</p>
</section>
