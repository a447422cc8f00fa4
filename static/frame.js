// As high as what stands in it: for a page that shows a Pellum intake in a frame. See docs/intake.md.
addEventListener('message', (event) => {
	if (event.data?.pellum !== 'height' || !Number.isFinite(event.data.height)) return;
	for (const frame of document.querySelectorAll('iframe'))
		if (frame.contentWindow === event.source && new URL(frame.src).origin === event.origin)
			frame.height = String(Math.min(20000, Math.max(200, event.data.height)));
});
