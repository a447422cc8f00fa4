<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '../forms';

	/** Codes from a device, and recovery codes for when it is lost. */
	let {
		factors,
		proved,
		said
	}: {
		factors: { codes: boolean; passkeys: number; recoveryCodes: number };
		proved: boolean;
		said: Record<string, unknown>;
	} = $props();
	const secret = $derived(typeof said['secret'] === 'string' ? said['secret'] : '');
	const recovery = $derived(Array.isArray(said['recovery']) ? (said['recovery'] as string[]) : []);
	let kept = $state('');
	$effect(() => {
		if (secret) kept = secret;
	});
	const picture = $derived(typeof said['picture'] === 'string' ? said['picture'] : '');
</script>

<h3 class="pt-5 text-[16px]">Codes from a device</h3>
{#if recovery.length > 0}
	<div class="mt-3 rounded-sm border border-line p-4" role="status">
		<p class="font-semibold">Recovery codes, shown this once</p>
		<p class="pt-1 text-[14px] text-quiet">
			Each lets you in once when the device is lost. Print them or write them down, and keep them apart from it.
		</p>
		<ul class="grid grid-cols-2 gap-x-6 pt-2 font-mono" aria-label="Recovery codes">
			{#each recovery as code (code)}<li>{code}</li>{/each}
		</ul>
	</div>
{/if}
{#if factors.codes}
	<p class="pt-2">A code from your device is asked for when you sign in by password.</p>
{:else if kept && !recovery.length && proved}
	<div class="grid gap-3 pt-2 sm:grid-cols-[auto_1fr]">
		{#if picture}
			<img src={picture} alt="The same, for a camera" class="size-40 bg-white p-1" />
		{/if}
		<div>
			<p>Take the picture with the program on your device that makes codes, or type this into it:</p>
			<p class="pt-1 font-mono text-[14px] wrap-anywhere">{kept.match(/.{1,4}/g)?.join(' ')}</p>
			<form method="POST" action="?/begin" use:enhance={keepFilled} class="pt-3">
				<input type="hidden" name="secret" value={kept} />
				<label
					>The code it shows now<input
						class="input mt-1 w-40 font-mono"
						name="code"
						inputmode="numeric"
						autocomplete="one-time-code"
						maxlength="20"
						required
					/></label
				>
				<p class="wrong pt-1 empty:hidden" role="alert">{said['form'] === 'begin' ? said['say'] : ''}</p>
				<p class="pt-3"><button class="button primary">Ask for codes from now on</button></p>
			</form>
		</div>
	</div>
{:else}
	<form method="POST" action="?/codes" use:enhance class="pt-2">
		<button class="button" disabled={!proved}>Set up codes</button>
	</form>
{/if}
<p class="wrong pt-1 empty:hidden" role="alert">
	{said['form'] === 'codes' || said['form'] === 'recovery' ? (said['say'] ?? '') : ''}
</p>
{#if factors.codes || factors.passkeys > 0}
	<p class="pt-3 text-[14px] text-quiet">
		{factors.recoveryCodes === 1 ? 'One recovery code is' : `${factors.recoveryCodes} recovery codes are`} left.
	</p>
	<div class="flex flex-wrap gap-3 pt-2">
		<form method="POST" action="?/recovery" use:enhance>
			<button class="button" disabled={!proved}>Make new recovery codes</button>
		</form>
		<form method="POST" action="?/remove" use:enhance>
			<button class="button grave" disabled={!proved}>Take codes and passkeys away</button>
		</form>
	</div>
{/if}
