import { toast } from 'svelte-sonner';

/** Says what has happened, for a few seconds, with a way back where there is one. What went wrong stays beside its cause instead. */
export function tell(what: string, undo?: { name?: string; run: () => unknown }): void {
	toast(what, undo ? { action: { label: undo.name ?? 'Undo', onClick: () => void undo.run() }, duration: 10_000 } : {});
}
