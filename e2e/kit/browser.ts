/** How Debian's Chromium is started, as root and without a network. */
export const BROWSER = {
	executablePath: '/usr/bin/chromium',
	args: [
		'--no-sandbox',
		'--disable-gpu',
		'--disable-dev-shm-usage',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync'
	]
};
