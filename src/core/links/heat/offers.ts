export {};

declare module '../../link' {
	interface Conditions {
		cooled: true;
		boxed: true;
		'readings taken': true;
	}
}
