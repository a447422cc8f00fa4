<script lang="ts">
	import { enhance } from '$app/forms';
	import Proof from '$lib/ui/account/Proof.svelte';
	import FolderMembers from '$lib/ui/settings/FolderMembers.svelte';

	let { data, form } = $props();
	const said = $derived((form ?? {}) as Record<string, string | undefined>);
	const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
</script>

<svelte:head><title>Folders · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto grid max-w-5xl gap-10 px-6 py-6 md:grid-cols-[3fr_2fr]">
	<section aria-labelledby="folders">
		<h1 id="folders" class="border-b border-hairline pb-2 text-[19px]">Folders</h1>
		{#if !data.proved}<Proof
				what="Who sees into a folder is changed only right after you have shown that it’s you."
			/>{/if}
		<ul>
			{#each data.folders as folder (folder.name)}
				<li class="border-b border-hairline py-3" aria-label={folder.name}>
					<div class="flex flex-wrap items-center gap-3">
						<div class="min-w-0 flex-1">
							<h2 class="text-[15px] font-semibold wrap-anywhere">{folder.name}</h2>
							<p class="text-[14px] text-quiet">
								{folder.open ? 'Open to the whole office' : 'Closed, for its members'} · {count(
									folder.packets,
									'packet',
									'packets'
								)}, {count(folder.templates, 'template', 'templates')}
							</p>
						</div>
						<form method="POST" action="?/{folder.open ? 'close' : 'open'}" use:enhance>
							<input type="hidden" name="folder" value={folder.name} />
							<button class="button" disabled={!data.proved}
								>{folder.open ? 'Close to all but members' : 'Open to the office'}<span class="unseen"
									>: {folder.name}</span
								></button
							>
						</form>
						{#if folder.packets + folder.templates === 0}<form method="POST" action="?/remove" use:enhance>
								<input type="hidden" name="folder" value={folder.name} />
								<button class="button grave" disabled={!data.proved}
									>Take away<span class="unseen">: {folder.name}</span></button
								>
							</form>{/if}
					</div>
					{#if !folder.open}<FolderMembers {folder} people={data.people} able={data.proved} />{/if}
					{#if said['form'] === 'one' && said['at'] === folder.name && said['say']}<p role="alert" class="wrong pt-1">
							{said['say']}
						</p>{/if}
				</li>
			{:else}<li class="py-3 text-quiet">There is no folder yet. Make one, or name one on a template.</li>{/each}
		</ul>
	</section>
	<section aria-labelledby="make">
		<h2 id="make" class="border-b border-hairline pb-2 text-[19px]">Make a folder</h2>
		<form method="POST" action="?/make" use:enhance class="grid gap-3 pt-3">
			<label
				>Name<input
					class="input mt-1"
					name="name"
					required
					maxlength="80"
					value={said['form'] === 'make' ? (said['name'] ?? '') : ''}
				/></label
			>
			{#if said['form'] === 'make'}<p role="alert" class={said['say'] ? 'wrong' : 'text-moss'}>
					{said['say'] ?? said['done']}
				</p>{/if}
			<p><button class="button primary">Make it</button></p>
		</form>
		<p class="pt-4 text-[14px] text-quiet">
			What lies in an open folder is the whole office’s, each by their level. Into a closed one only its members see,
			the owners of the office, and whoever sent a packet or takes part in it. Its name stays as it is: packets’ records
			name it.
		</p>
	</section>
</main>
