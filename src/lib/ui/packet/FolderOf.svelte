<script lang="ts">
	import { saidTo, type Answered } from './form';
	import Choice from '../parts/Choice.svelte';
	import SmallForm from './SmallForm.svelte';

	/** Which folder of the office a packet lies in, and the way into another. */
	let {
		folder,
		folders,
		mayAct,
		answered
	}: { folder: string; folders: string[]; mayAct: boolean; answered: Answered | null } = $props();
	let moving = $state(false);
</script>

{#if moving}
	<div class="pb-5">
		<SmallForm
			action="?/folder"
			button="Move it"
			say={saidTo(answered, 'folder')}
			ondone={() => (moving = false)}
			onleave={() => (moving = false)}
		>
			<Choice
				label="Into the folder"
				name="folder"
				value={answered?.kept?.['folder'] ?? folder}
				options={[
					['', 'none, the whole office’s'],
					...folders.map((one): [string, string] => [one, one]),
					...(folder && !folders.includes(folder) ? [[folder, folder, true] as const] : [])
				]}
			/>
			<p class="text-[14px] text-quiet">
				Who sees into that folder sees it from then on. The record says that it was moved.
			</p>
		</SmallForm>
	</div>
{:else if folder || (mayAct && folders.length > 0)}
	<p class="flex flex-wrap items-baseline gap-x-3 pb-2 text-[14px]">
		<span><span class="text-quiet">Folder</span> <span class="wrap-anywhere">{folder || 'none'}</span></span>
		{#if mayAct && folders.length > 0}<button class="text-thread underline" onclick={() => (moving = true)}
				>Move…</button
			>{/if}
	</p>
{/if}
