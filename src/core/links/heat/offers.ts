export {};

declare module '../../link/step' {
	interface Conditions {
		cooled: true;
		boxed: true;
		'readings taken': true;
	}
}
