<script lang="ts">
	import { page } from '$app/state';

	let { data, children } = $props();
	const parts: { to: string; name: string; owners?: boolean }[] = [
		{ to: '/settings', name: 'Organisation' },
		{ to: '/settings/holidays', name: 'Holidays' },
		{ to: '/settings/identity', name: 'Who people are' },
		{ to: '/settings/paper', name: 'On paper' },
		{ to: '/settings/keeping', name: 'Keeping' },
		{ to: '/settings/accounts', name: 'Accounts', owners: true },
		{ to: '/settings/folders', name: 'Folders', owners: true },
		{ to: '/settings/signing-in', name: 'Signing in', owners: true },
		{ to: '/settings/keys', name: 'Keys', owners: true },
		{ to: '/settings/backups', name: 'Backups', owners: true },
		{ to: '/settings/record', name: 'Office record', owners: true },
		{ to: '/settings/outside', name: 'Outside' },
		{ to: '/settings/about', name: 'About' }
	];
</script>

<nav aria-label="Settings" class="mx-auto flex max-w-5xl flex-wrap gap-x-5 gap-y-1 px-6 pt-5">
	{#each parts.filter((part) => data.owner || !part.owners) as part (part.to)}
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
{@render children()}
