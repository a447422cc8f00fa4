<script lang="ts">
	import Upload from '@lucide/svelte/icons/upload';

	/**
	 * A place for files: press it to choose, or drop them on it. It says what it takes; and what is under way. Within a form they go along under `name`.
	 */
	let {
		label,
		takes = '',
		accept,
		name,
		multiple = false,
		required = false,
		disabled = false,
		capture,
		compact = false,
		large = false,
		bare = false,
		busy = '',
		say = { choose: 'Choose a file', drop: 'or drop it here' },
		onfiles
	}: {
		label: string;
		/** what it takes, in words */
		takes?: string;
		/** the same for the browser: media types and endings */
		accept: string;
		name?: string;
		multiple?: boolean;
		required?: boolean;
		disabled?: boolean;
		/** takes a picture with the camera at the back instead */
		capture?: 'environment';
		/** a button only, without the place to drop on */
		compact?: boolean;
		/** that button for fingers, as on the signing page */
		large?: boolean;
		/** only what {@link choose} opens */
		bare?: boolean;
		/** what is under way, in words */
		busy?: string;
		/** its own words, in the reader's language */
		say?: { choose: string; drop: string };
		onfiles?: (files: File[]) => void;
	} = $props();

	const uid = $props.id();
	let input = $state<HTMLInputElement>();
	let over = $state(false);
	let chosen = $state<string[]>([]);

	/** Opens the browser's own choosing of files. */
	export function choose(): void {
		input?.click();
	}

	function take() {
		const files = [...(input?.files ?? [])];
		if (files.length === 0) return;
		chosen = files.map((file) => file.name);
		onfiles?.(files);
		// the same file may be chosen again; one that goes along in a form stays
		if (!name && input) {
			input.value = '';
			chosen = [];
		}
	}
	function drop(event: DragEvent) {
		event.preventDefault();
		over = false;
		const files = event.dataTransfer?.files;
		if (!input || disabled || !files || files.length === 0) return;
		const some = new DataTransfer();
		for (const file of [...files].slice(0, multiple ? undefined : 1)) some.items.add(file);
		input.files = some.files;
		input.dispatchEvent(new Event('change', { bubbles: true }));
	}
</script>

{#snippet field()}<input
		bind:this={input}
		id={uid}
		class="unseen"
		type="file"
		{accept}
		{name}
		{multiple}
		{required}
		{capture}
		disabled={disabled || busy !== ''}
		tabindex={bare ? -1 : undefined}
		aria-label={bare ? label : undefined}
		aria-describedby={takes ? `${uid}-takes` : undefined}
		onchange={take}
	/>{/snippet}
{#if bare}{@render field()}
{:else if compact}
	<label
		class="button {large
			? 'large'
			: ''} cursor-pointer focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-thread"
		>{busy || label}{@render field()}</label
	>
{:else}
	<label
		for={uid}
		class="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-3 gap-y-1 rounded-sm border border-dashed px-3 py-2 focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-thread {over
			? 'border-thread bg-wash'
			: 'border-line'} {disabled ? 'cursor-default opacity-60' : ''}"
		ondragover={(event) => {
			event.preventDefault();
			over = !disabled;
		}}
		ondragleave={() => (over = false)}
		ondrop={drop}
	>
		<Upload size={16} class="shrink-0 text-thread" aria-hidden="true" />
		<span class="min-w-0 flex-1">
			<span class="unseen">{label}: </span>
			{#if chosen.length > 0}<b class="break-words">{chosen.join(', ')}</b>
			{:else}<span class="font-semibold text-thread">{say.choose}</span> <span class="text-quiet">{say.drop}</span>{/if}
			{#if takes}<span id="{uid}-takes" class="block text-[13px] text-quiet">{takes}</span>{/if}
		</span>
		{@render field()}
	</label>
{/if}
{#if busy && !compact && !bare}
	<p role="status" class="pt-1 text-[14px] text-quiet">{busy}</p>
{/if}
