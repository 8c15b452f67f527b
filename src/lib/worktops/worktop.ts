import type { Component } from 'svelte';

/** What shows a link: its settings, and what follows from them. */
export interface Worktop {
	readonly settings: Component;
	/** Where one would rather look than read: across the top. */
	readonly drawing?: Component;
	/** Beside the findings, in place of the figures, which then stand below. */
	readonly beside?: Component;
	/** The drawing is a list that may be long: what is wrong stands above it. */
	readonly list?: true;
	/** It needs more than half of the width. */
	readonly wide?: true;
	/** Below: beside the figures where these stand there, else across. */
	readonly below?: Component;
}
