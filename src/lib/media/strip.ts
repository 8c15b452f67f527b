/** Frames side by side, so large each. */
export const STRIP = { widthPx: 128, heightPx: 72, frames: 6 } as const;

/** A small picture of what is seen: a still or a cover, or frames of a film side by side. */
export interface Strip {
	readonly dataUrl: string;
	readonly frames: number;
}
