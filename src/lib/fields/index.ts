/** Fields that write one setting of the plan; a value that is not allowed stays in the field with the reason below it. */
export { default as ChoiceField } from './ChoiceField.svelte';
export { default as DaysField } from './DaysField.svelte';
export { default as GroupField } from './GroupField.svelte';
export { default as NumberField } from './NumberField.svelte';
export { default as SwitchField } from './SwitchField.svelte';
export { default as TextField } from './TextField.svelte';
