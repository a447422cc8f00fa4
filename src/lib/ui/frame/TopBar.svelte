<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import Menu from '../parts/Menu.svelte';
	import Find from './Find.svelte';
	import NewPacket from './NewPacket.svelte';
	import { monogram } from '../thread/stops';

	let { account, demo }: { account: { name: string; email: string; level: string }; demo: boolean } = $props();

	let out = $state<HTMLFormElement>();
	const areas = $derived([
		{ to: '/desk', name: 'Desk' },
		...(account.level === 'viewer'
			? []
			: [
					{ to: '/templates', name: 'Templates' },
					{ to: '/intakes', name: 'Intake' },
					{ to: '/batches', name: 'Batches' }
				]),
		{ to: '/records', name: 'Records' },
		{ to: '/pace', name: 'Pace' },
		{ to: '/settings', name: 'Settings' },
		...(demo || account.level === 'owner' ? [{ to: '/stand-ins', name: 'Stand-ins' }] : [])
	]);
	const isHere = (area: { to: string }) => page.url.pathname.startsWith(area.to);
</script>

<header
	class="sticky top-0 z-20 flex h-[46px] items-center gap-2 border-b border-hairline bg-sheet px-3 min-[600px]:gap-4 min-[600px]:px-5"
>
	<a href="/desk" class="flex items-center gap-2.5 font-serif text-[19px] font-semibold no-underline">
		<svg width="30" height="14" aria-hidden="true">
			<line x1="6" x2="19" y1="7" y2="7" stroke="var(--thread)" stroke-width="2" />
			<circle cx="6" cy="7" r="4" fill="var(--thread)" />
			<circle cx="23" cy="7" r="4.5" fill="none" stroke="var(--thread)" stroke-width="2" />
		</svg>
		<span class="unseen min-[600px]:not-sr-only">Pellum</span>
	</a>
	<nav aria-label="Areas" class="h-full">
		<div class="flex h-full items-center min-[920px]:hidden">
			<Menu
				label="{areas.find(isHere)?.name ?? 'Areas'} ▾"
				hint="Areas"
				look="plain min-h-8"
				entries={areas.map(({ to, name }) => ({ name, to }))}
			/>
		</div>
		<div class="hidden h-full gap-4 pl-1 min-[920px]:flex min-[1200px]:gap-5">
			{#each areas as area (area.to)}
				{@const here = isHere(area)}
				<a
					href={area.to}
					aria-current={here ? 'page' : undefined}
					class="flex items-center border-b-2 pt-0.5 whitespace-nowrap no-underline {here
						? 'border-thread font-semibold text-ink'
						: 'border-transparent text-quiet hover:text-ink'}"
				>
					{area.name}
				</a>
			{/each}
		</div>
	</nav>
	<div class="ml-auto flex items-center gap-2 min-[600px]:gap-4">
		<Find {areas} mayPrepare={account.level !== 'viewer'} />
		{#if account.level !== 'viewer'}
			<NewPacket />
		{/if}
		<form method="POST" action="/sign-out" bind:this={out} class="hidden"></form>
		<Menu
			label={monogram(account.name)}
			hint="{account.name}, {account.level}"
			look="flex size-7 cursor-pointer items-center justify-center rounded-full border border-ink text-[12px] font-bold"
			heading="{account.name}, {account.email} · {account.level}"
			entries={[
				{ name: 'Password, passkeys, sessions', run: () => goto('/account') },
				{ name: 'Sign out', run: () => out?.requestSubmit() }
			]}
		/>
	</div>
</header>
