/** How Debian's Chromium is started, as root and without a network. */
export const BROWSER = {
	executablePath: '/usr/bin/chromium-headless-shell',
	args: [
		'--no-sandbox',
		'--disable-gpu',
		// words as wide as they are, wherever it runs
		'--font-render-hinting=none',
		'--disable-dev-shm-usage',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync'
	]
};
