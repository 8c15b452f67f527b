/** Daylight or lamplight: as the person chose, else as their system asks. */
const KEY = 'yphos-theme';

export function applyTheme(): void {
	let chosen: string | null = null;
	try {
		chosen = localStorage.getItem(KEY);
	} catch {
		// Storage may be blocked; the system's wish is then all there is.
	}
	document.documentElement.dataset.theme =
		chosen ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'lamp' : 'day');
}

export function toggleTheme(): void {
	const next = document.documentElement.dataset.theme === 'lamp' ? 'day' : 'lamp';
	document.documentElement.dataset.theme = next;
	try {
		localStorage.setItem(KEY, next);
	} catch {
		// Then it lasts until the page is closed.
	}
}
