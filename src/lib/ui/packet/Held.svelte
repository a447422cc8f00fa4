<script lang="ts">
	import { enhance } from '$app/forms';
	import { saidTo, type Answered } from './form';

	/** Somebody could not show who they are: the sender judges. */
	let { person, name, answered }: { person: string; name: string; answered: Answered | null } = $props();
</script>

<form method="POST" action="?/release" class="mb-5 border-l-[3px] border-brick bg-linen px-4 py-3" use:enhance>
	<h2 class="text-[16px]">{name} could not show who they are</h2>
	<p class="pb-2 text-[14px]">Speak to them by a way you trust. Whatever you decide is in the record.</p>
	<input type="hidden" name="person" value={person} />
	<label
		>A note for the record<input
			class="input mt-1"
			name="note"
			maxlength="500"
			value={answered?.form === 'release' ? (answered.kept?.['note'] ?? '') : ''}
		/></label
	>
	<p class="wrong empty:hidden" role="alert">{saidTo(answered, 'release')}</p>
	<p class="flex flex-wrap gap-2 pt-2">
		<button class="button primary" name="how" value="another try">Let them try again</button>
		<button class="button" name="how" value="let through">Let them through without a code</button>
	</p>
</form>
