<script lang="ts">
	import { enhance } from '$app/forms';
	import type { KeyRow } from '../../server/keys';
	import Files from '../parts/Files.svelte';
	import { keepFilled } from '../forms';

	/** A certificate from an authority: tried first, used then; and newer lists of its authorities. */
	let {
		taken,
		wrong,
		tried,
		used,
		lists
	}: {
		/** what seals now, where it was taken in */
		taken: KeyRow | null;
		wrong: string;
		tried: { of: string; chain: string[]; until: string; lists: string | null } | null;
		/** whose certificate seals from now on; '' where none was taken in just now */
		used: string;
		/** what came of adding lists */
		lists: { say: string; until: string } | null;
	} = $props();
</script>

<section aria-labelledby="own" class="max-w-2xl pt-8">
	<h2 id="own" class="border-b border-hairline pb-1 text-[17px]">A certificate of your own</h2>
	<p class="py-2 text-quiet">
		From an authority, with its private key, as a .p12 or .pfx file; with it the authorities’ revocation lists, and
		their certificates where the file lacks them.
	</p>
	<form method="POST" action="?/try" enctype="multipart/form-data" class="grid gap-3" use:enhance={keepFilled}>
		<Files
			label="Certificate and key"
			name="file"
			accept=".p12,.pfx,application/x-pkcs12"
			takes=".p12 or .pfx"
			required
		/>
		<label
			>Its password<input
				class="input mt-1 block w-72"
				type="password"
				name="password"
				maxlength="200"
				autocomplete="off"
			/></label
		>
		<Files
			label="Lists and certificates of its authorities"
			name="more"
			accept=".crl,.pem,.crt,.cer,.der"
			takes=".crl, .pem or .cer"
			multiple
		/>
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		{#if tried}
			<p role="status">
				A sheet that was sealed with it is genuine. It is <b>{tried.of}</b>’s, issued by {tried.chain.join(', by ')},
				good until {tried.until.slice(0, 10)}{tried.lists ? `; its lists until ${tried.lists.slice(0, 10)}` : ''}.
			</p>
		{:else if used}<p role="status" class="text-moss">It seals from now on, as {used}.</p>{/if}
		<p class="flex flex-wrap gap-2">
			<button class="button {tried ? '' : 'primary'}">Try it</button>
			{#if tried}<button class="button primary" formaction="?/use">Seal with it from now on</button>{/if}
		</p>
	</form>
	{#if taken}
		<form method="POST" action="?/lists" enctype="multipart/form-data" class="grid gap-3 pt-5" use:enhance={keepFilled}>
			<h3 class="text-[15px]">Newer lists of its authorities</h3>
			<p class="text-[14px] text-quiet">
				Fetched by themselves from where the authorities put them, two days before they end; or added here.
			</p>
			<Files label="Newer revocation lists" name="more" accept=".crl,.pem" takes=".crl or .pem" multiple required />
			<p class="{lists?.say ? 'wrong' : 'text-moss'} empty:hidden" role="status">
				{lists ? lists.say || `They are good until ${lists.until.slice(0, 10) || 'further notice'}.` : ''}
			</p>
			<p><button class="button">Add them</button></p>
		</form>
	{/if}
</section>
