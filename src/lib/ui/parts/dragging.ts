/** What is told while something is dragged is a status: it interrupts nobody, and is no error. The package makes it an alert. */
export function politely(): void {
	document.getElementById('dnd-action-aria-alert')?.setAttribute('role', 'status');
}
