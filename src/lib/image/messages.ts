import type { DigestKind } from '$core/image/digest';
import type { ImageForm } from '$core/image/form';
import type { ImageScan } from '$core/image/scanner';

export interface ImageTask {
	readonly file: File;
	readonly kinds: readonly DigestKind[];
}
export type ImageReport =
	| { readonly type: 'progress'; readonly bytes: number }
	| {
			readonly type: 'done';
			readonly form: ImageForm;
			readonly digests: Partial<Record<DigestKind, string>>;
			/** Null for a packed form that is not unpacked here. */
			readonly scan: ImageScan | null;
			/** It could not be unpacked to its end. */
			readonly torn: boolean;
	  }
	| { readonly type: 'failed'; readonly why: string };
