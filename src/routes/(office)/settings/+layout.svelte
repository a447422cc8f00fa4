<script lang="ts">
	import { page } from '$app/state';

	let { data, children } = $props();
	const parts = [
		{ to: '/settings', name: 'Organisation' },
		{ to: '/settings/accounts', name: 'Accounts' },
		{ to: '/settings/folders', name: 'Folders' },
		{ to: '/settings/signing-in', name: 'Signing in' },
		{ to: '/settings/backups', name: 'Backups' },
		{ to: '/settings/record', name: 'Office record' },
		{ to: '/settings/about', name: 'About' }
	];
</script>

{#if data.owner}
	<nav aria-label="Settings" class="mx-auto flex max-w-5xl flex-wrap gap-x-5 gap-y-1 px-6 pt-5">
		{#each parts as part (part.to)}
			{@const here = page.url.pathname === part.to}
			<a
				href={part.to}
				aria-current={here ? 'page' : undefined}
				class="border-b-2 py-1 no-underline {here
					? 'border-thread font-semibold text-ink'
					: 'border-transparent text-quiet hover:text-ink'}">{part.name}</a
			>
		{/each}
	</nav>
{/if}
{@render children()}
